"""What axe finds on a page."""

from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Page

LOOKS = {
    "all": {},
    "contrast": {"runOnly": ["color-contrast"]},
    "structure": {"rules": {"color-contrast": {"enabled": False}}},
}
"""What axe looks at: contrast changes with the theme alone, structure with the width alone."""


def serious(page: Page, look: str = "all") -> list[str]:
    """Serious and critical findings of axe on the page as it stands."""
    options = LOOKS[look] | {"resultTypes": ["violations"]}
    return [
        f"{violation['id']}: {node['html'][:160]}"
        for violation in Axe().run(page, options=options).response["violations"]
        if violation["impact"] in ("serious", "critical")
        for node in violation["nodes"]
    ]
