"""One scale of speeds from many charts."""

from wattmetron.core.charts.chart import MEASURES, Chart, ChartRow, Measure
from wattmetron.core.charts.reconcile import Reconciled, Source, reconcile

__all__ = ["MEASURES", "Chart", "ChartRow", "Measure", "Reconciled", "Source", "reconcile"]
