"""What one part gives up against another."""

from wattmetron.core.values.parts import Part
from wattmetron.core.values.trust import trust_of
from wattmetron.services.desk.swaps import traits


def gives_up(old: Part, new: Part) -> str:
    """What was perhaps bought on purpose: trust, warranty, noise, and the figures that differ."""
    said = []
    if trust_of(old) != trust_of(new):
        said.append(f"{trust_of(old)} becomes {trust_of(new)}")
    if old.warranty_years and old.warranty_years != new.warranty_years:
        said.append(f"warranty {old.warranty_years:g} to {new.warranty_years or 0:g} years")
    before, after = (getattr(part, "noise_dba", None) for part in (old, new))
    if before is not None and after is not None and before != after:
        said.append(f"{before:g} to {after:g} dB(A)")
    had, has = ("; ".join(filter(None, traits(part))) for part in (old, new))
    if had != has:
        said.append(f"{had} becomes {has}")
    return "; ".join(said) or "nothing that is known"
