"""Random requests over pages, forms, addresses and the API; none may end in a 5xx.

Forms are those that the pages hold at that moment, with some entries replaced; JSON is what the
API gives, with some values replaced, and what its own description says it takes.
"""

import argparse
import copy
import json
import logging
import random
import re
import sys
import tempfile
from collections import Counter
from html.parser import HTMLParser
from pathlib import Path
from urllib.parse import urlencode

from fastapi.testclient import TestClient

from tests import small
from wattmetron.api.app import make_app
from wattmetron.workshop.workshop import Workshop

BEYOND = 10**20
NASTY = [
    "",
    " ",
    "0",
    "-1",
    "1",
    "nan",
    "inf",
    "-inf",
    "1e308",
    "1e-320",
    "1e999",
    "9" * 400,
    "9" * 19,
    str(BEYOND),
    "0x10",
    "1,5",
    "1.234,56",
    "½",
    "٣",
    "\x00",
    "a\x00b",
    "\r\nX-Injected: yes",
    "\ud800".encode("utf-8", "surrogatepass").decode("latin-1"),
    "\u202egnp.exe",
    "😀" * 40,
    "<script>alert(1)</script>",
    "'\"><svg onload=x>",
    "{{ 7 * 7 }}",
    "../../../../etc/passwd",
    "%00%0d%0a",
    "x" * 500,
    "(" * 3000,
    " " * 3000 + "x",
    "1280x720 " * 200,
    "0x0",
    "99999x99999",
    "2560x1440",
    "2027-02-30",
    "9999-12-31",
    "0001-01-01",
    "on",
    "null",
    "[]",
]
JSON_NASTY = [
    None,
    True,
    0,
    -1,
    1e308,
    1e-320,
    BEYOND,
    -BEYOND,
    "",
    "x",
    "\x00",
    "x" * 5000,
    [],
    {},
    [[[[]]]],
    {"a": {"b": {}}},
    "2027-02-30",
    "vellmouth",
]
RAW_JSON = ["[" * 5000, "NaN", '{"brief": NaN}', '"\\ud800"', "9" * 5000, "{", "", "\x00", "null"]
QUERY_NAMES = re.findall(
    r"\w+",
    "all at beside brief by dir done equal error every faster fits game genre kind like "
    "limits make measure met money on pair page parts place price propose purse q region "
    "said search settings sort step suppose swap trust try unfit view where wishes "
    "working amounts rise noise",
)
HEADERS = [{}, {}, {"HX-Request": "true"}, {"HX-Request": "true", "HX-Trigger": "waiting"}]


class Forms(HTMLParser):
    """The forms of a page: address, entries; and its links."""

    def __init__(self) -> None:
        super().__init__(convert_charrefs=True)
        self.forms: list[tuple[str, str, dict[str, str]]] = []
        self.links: list[str] = []
        self._open: dict[str, str] | None = None
        self._select = ""

    def handle_starttag(self, tag, attrs):
        own = {name: value or "" for name, value in attrs}
        if tag == "a" and own.get("href", "").startswith("/"):
            self.links.append(own["href"])
        elif tag == "form":
            self._open = {}
            self.forms.append((own.get("method", "get"), own.get("action", ""), self._open))
        elif self._open is None:
            return
        elif tag in ("input", "textarea", "button") and own.get("name"):
            checked = own.get("type") not in ("checkbox", "radio") or "checked" in own
            if checked and own.get("type") != "file":
                self._open[own["name"]] = own.get("value", "on" if tag == "input" else "")
        elif tag == "select":
            self._select = own.get("name", "")
        elif tag == "option" and self._select and "selected" in own:
            self._open[self._select] = own.get("value", "")

    def handle_endtag(self, tag):
        if tag == "form":
            self._open = None
        elif tag == "select":
            self._select = ""


class Fuzz:
    """A seeded stream of requests against one application."""

    def __init__(self, client: TestClient, workshop: Workshop, seed: int) -> None:
        self.client, self.rng = client, random.Random(seed)
        catalogue = workshop.catalogue()
        self.part_ids, self.games = list(catalogue.parts), list(catalogue.games)
        self.values = [*self.part_ids[::20], *self.games[::20], *catalogue.regions]
        self.routes = list(_routes(client.app.router))
        self.schema = client.get("/api/v1/openapi.json").json()
        self.pages = ["/briefs", "/games", "/parts", "/parts/scale", "/games/assumptions"]
        self.statuses: Counter[int] = Counter()
        self.failures: list[str] = []

    def run(self, requests: int) -> None:
        kinds = (self.page, self.page, self.form, self.form, self.form, self.address, self.api)
        while sum(self.statuses.values()) < requests and len(self.failures) < 20:
            self.rng.choice(kinds)()

    def ask(self, method: str, path: str, **sent):
        """One request; whatever happens is noted."""
        said = f"{method} {path[:300]} {json.dumps(sent, default=str)[:1500]}"
        try:
            answer = self.client.request(
                method, path, follow_redirects=self.rng.random() < 0.7, **sent
            )
        except Exception as error:
            self.statuses[599] += 1
            self.failures.append(f"{said}\n  raised {error!r}"[:2500])
            return None
        self.statuses[answer.status_code] += 1
        if answer.status_code >= 500 or "x-injected" in answer.headers:
            self.failures.append(f"{said}\n  answered {answer.status_code}")
        return answer

    def page(self) -> None:
        answer = self.ask("GET", self.rng.choice(self.pages), headers=self.rng.choice(HEADERS))
        if answer is not None and answer.status_code == 200:
            self._learn(answer.text)

    def _learn(self, text: str) -> Forms:
        forms = Forms()
        forms.feed(text)
        links = [link for link in forms.links if len(link) < 400]
        self.pages += self.rng.sample(links, min(4, len(links)))
        self.pages = self.pages[:5] + self.pages[5:][-300:]
        return forms

    def form(self) -> None:
        answer = self.client.get(self.rng.choice(self.pages))
        forms = [form for form in self._learn(answer.text).forms if form[1].startswith("/")]
        if not forms:
            return
        method, action, entries = self.rng.choice(forms)
        for name in list(entries):
            if self.rng.random() < 2 / (len(entries) + 1):
                entries[name] = self._value()
        if self.rng.random() < 0.1:
            entries[self.rng.choice(QUERY_NAMES)] = self._value()
        headers = self.rng.choice(HEADERS)
        if method.lower() == "post":
            self.ask("POST", action, data=entries, headers=headers)
        else:
            self.ask("GET", f"{action}?{urlencode(entries)}", headers=headers)

    def address(self) -> None:
        method, path = self.rng.choice(self.routes)
        path = re.sub(r"\{(\w+)(:\w+)?\}", lambda hole: self._hole(hole[1]), path)
        names = self.rng.sample(QUERY_NAMES, self.rng.randrange(4))
        query = urlencode({name: self._value() for name in names})
        sent = {} if method == "GET" else {"data": {"version": "1"} | dict.fromkeys(names, "1")}
        self.ask(method, path + (f"?{query}" if query else ""), **sent)

    def _hole(self, name: str) -> str:
        if self.rng.random() < 0.2:
            return urlencode({"": self._value()[:200]})[1:].replace("+", "%20") or "x"
        known = {"brief_id": range(1, 12), "part_id": self.part_ids, "game_id": self.games}
        words = ("brief", "frames", "balance", "fit", "build", "remove", "undo", "0", "t1")
        return str(self.rng.choice(known.get(name, words)))

    def _value(self) -> str:
        return self.rng.choice(NASTY if self.rng.random() < 0.7 else self.values)

    def api(self) -> None:
        if self.rng.random() < 0.1:
            path = self.rng.choice(list(self.schema["paths"]))
            self.ask(
                "POST",
                path.replace("{brief_id}", "1"),
                content=self.rng.choice(RAW_JSON).encode(),
                headers={"content-type": "application/json"},
            )
            return
        path = self.rng.choice(list(self.schema["paths"]))
        method = self.rng.choice(list(self.schema["paths"][path]))
        described = self.schema["paths"][path][method]
        body = described.get("requestBody")
        filled = re.sub(r"\{(\w+)\}", lambda hole: self._hole(hole[1]), path)
        query = {
            own["name"]: self._value() if self.rng.random() < 0.5 else "1"
            for own in described.get("parameters", ())
            if own["in"] == "query"
        }
        sent = {"params": query}
        if body:
            document = self._document(body["content"]["application/json"]["schema"])
            sent |= {
                "content": json.dumps(document).encode(),
                "headers": {"content-type": "application/json"},
            }
        self.ask(method.upper(), filled, **sent)

    def _document(self, schema):
        """Mostly a stored brief with a few values replaced; else what the description says."""
        if self.rng.random() < 0.3:
            return self._made(schema, 0)
        brief_id = self.rng.randrange(1, 9)
        answer = self.client.get(f"/api/v1/briefs/{brief_id}")
        document = answer.json() if answer.status_code == 200 else {}
        return self._replaced(copy.deepcopy(document))

    def _replaced(self, document):
        places: list[tuple[object, object]] = []

        def walk(value):
            keys = value if isinstance(value, dict) else range(len(value))
            for key in keys:
                places.append((value, key))
                if isinstance(value[key], (dict, list)):
                    walk(value[key])

        walk(document)
        for value, key in self.rng.sample(places, min(len(places), self.rng.randrange(3))):
            value[key] = self.rng.choice(JSON_NASTY)
        return document

    def _made(self, schema, depth):
        if "$ref" in schema:
            schema = self.schema["components"]["schemas"][schema["$ref"].split("/")[-1]]
        if depth > 6 or self.rng.random() < 0.05:
            return self.rng.choice(JSON_NASTY)
        for word in ("anyOf", "oneOf", "allOf"):
            if word in schema:
                return self._made(self.rng.choice(schema[word]), depth + 1)
        if "enum" in schema:
            return self.rng.choice(schema["enum"])
        match schema.get("type"):
            case "object":
                return {
                    name: self._made(own, depth + 1)
                    for name, own in schema.get("properties", {}).items()
                    if name in schema.get("required", ()) or self.rng.random() < 0.4
                }
            case "array":
                return [
                    self._made(schema.get("items", {}), depth + 1)
                    for _ in range(self.rng.randrange(3))
                ]
            case "integer":
                return self.rng.choice([schema.get("minimum", 0), schema.get("maximum", 1), 1, 60])
            case "number":
                return self.rng.choice([0.5, 1, schema.get("maximum", 60.0)])
            case "boolean":
                return self.rng.random() < 0.5
        return self.rng.choice([*self.values[:20], "", "1200.50", "2027-03-01", "x"])


def _routes(router):
    for route in router.routes:
        if hasattr(route, "original_router"):
            yield from _routes(route.original_router)
        elif getattr(route, "methods", None):
            yield from ((method, route.path) for method in route.methods if method != "HEAD")


def small_world(path: Path) -> Workshop:
    """What is asked matters here, not how much there is to compute."""
    workshop = Workshop(path)
    workshop.load_demo(small.CATALOGUE, small.BRIEFS)
    return workshop


def fuzzed(workshop: Workshop, requests: int, seed: int) -> Fuzz:
    """The outcome of so many requests."""
    app = make_app(workshop)
    client = TestClient(app, base_url="http://127.0.0.1", raise_server_exceptions=False)
    with client:
        fuzz = Fuzz(client, workshop, seed)
        fuzz.run(requests)
    return fuzz


def main() -> int:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--requests", type=int, default=20_000)
    parser.add_argument("--seed", type=int, default=14)
    options = parser.parse_args()
    logging.getLogger("wattmetron").setLevel(logging.ERROR)
    with tempfile.TemporaryDirectory() as folder:
        workshop = small_world(Path(folder) / "fuzz.sqlite")
        fuzz = fuzzed(workshop, options.requests, options.seed)
    print("\n".join(fuzz.failures))
    told = ", ".join(f"{status}: {count:,}" for status, count in sorted(fuzz.statuses.items()))
    print(f"seed {options.seed}, {sum(fuzz.statuses.values()):,} requests. {told}.")
    return 1 if fuzz.failures else 0


if __name__ == "__main__":
    sys.exit(main())
