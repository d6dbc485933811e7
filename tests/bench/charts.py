"""Speed of reconciling charts."""

import time

import numpy as np

from tests.core.test_charts import made_up
from wattmetron.core.speeds.reconcile import reconcile


def charts(parts=2000, sources=40, rows=300):
    known, found, truth = made_up(3, parts, sources, rows)
    start = time.perf_counter()
    scale = reconcile(known, found)
    took = time.perf_counter() - start
    design = parts + sources
    matrix = np.random.default_rng(0).normal(size=(design, design))
    start = time.perf_counter()
    np.linalg.solve(matrix, truth[:1].repeat(design))
    dense = time.perf_counter() - start
    print(
        f"\nreconciling {parts:,} parts from {sources} charts of {rows} values: {took:.2f} s for"
        f" {len(scale.ln):,} speeds; one dense solution of that size alone {dense:.2f} s"
    )


if __name__ == "__main__":
    charts()
