"""The platform tables' own steps against plain definitions."""

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.extent import exhaustive, extent
from wattmetron.core.search.row_keys import packed_rows, undominated_rows


@exhaustive
@settings(max_examples=extent(66, 800))
@given(st.lists(st.tuples(*[st.integers(0, 3)] * 5), max_size=30))
def test_only_rows_that_nothing_beats_stay(rows):
    """Against the plain definition, pair by pair, on tables full of ties."""
    key, cost, latency, bandwidth, gb = np.array(rows, dtype=np.int64).reshape(-1, 5).T
    kept = set(undominated_rows(key, cost, latency, -bandwidth, -gb).tolist())

    def as_good(one, other):
        return (
            one[0] == other[0]
            and one[1] <= other[1]
            and one[2] <= other[2]
            and one[3] >= other[3]
            and one[4] >= other[4]
        )

    for i, row in enumerate(rows):
        better = [other for other in rows if as_good(other, row) and other != row]
        twins = [j for j, other in enumerate(rows) if other == row]
        assert len(kept & set(twins)) == (0 if better else 1), i


@exhaustive
@settings(max_examples=extent(66, 800))
@given(
    st.lists(
        st.tuples(*[st.sampled_from([0, 1, 5, 1 << 20, 1 << 40])] * 4), min_size=1, max_size=10
    )
)
def test_packed_keys_are_equal_only_where_all_columns_are(rows):
    packed = packed_rows(*np.array(rows, dtype=np.int64).T)
    for i, row in enumerate(rows):
        assert [bool(key == packed[i]) for key in packed] == [other == row for other in rows]
