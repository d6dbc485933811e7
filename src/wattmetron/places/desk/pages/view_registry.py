"""The views of a brief's page, in the order in which they stand."""

from wattmetron.places.assessment.pages.view_spec import ViewSpec
from wattmetron.places.balance.pages.balance_view import BALANCE
from wattmetron.places.brief.pages.brief_view import BRIEF_FORM
from wattmetron.places.buy.pages.buy import BUY
from wattmetron.places.compare.pages.compare_view import COMPARE
from wattmetron.places.compatibility.pages.compatibility_view import FIT
from wattmetron.places.frames.pages.frames import FRAMES
from wattmetron.places.handout.pages.view import HANDOUT
from wattmetron.places.measured.pages.views import MEASURED
from wattmetron.places.review.pages.review_view import REVIEW

REGISTERED: tuple[ViewSpec, ...] = (
    BRIEF_FORM,
    FRAMES,
    BALANCE,
    FIT,
    REVIEW,
    COMPARE,
    HANDOUT,
    BUY,
    MEASURED,
)
BY_NAME: dict[str, ViewSpec] = {spec.name: spec for spec in REGISTERED}
