"""The edges: whatever is sent, the answer is a sentence; what is stored locks nobody out; who may
not come in stays outside.
"""

import argparse
import html
import json
import re
import sqlite3
from concurrent.futures import ThreadPoolExecutor
from contextlib import closing
from dataclasses import replace
from datetime import UTC, datetime, timedelta
from threading import Barrier
from types import SimpleNamespace

import pytest
from fastapi.testclient import TestClient
from sqlalchemy import event

from tests.extent import exhaustive, extent
from tests.pages.conftest import HTMX, form, squeezed
from tests.small import CATALOGUE
from wattmetron.api.app import make_app
from wattmetron.cli import serving
from wattmetron.core.errors import InvalidError, NotPossibleError
from wattmetron.core.values.build import Build
from wattmetron.core.values.ids import ADDRESSES, is_id
from wattmetron.formats.catalogue_folder import read_catalogue
from wattmetron.shell import passphrase
from wattmetron.shell.access import COOKIE, Door
from wattmetron.workshop.sessions import SESSION, Sessions

VIEWS = ("brief", "frames", "balance", "fit")
BEYOND = 10**20


def words(answer) -> str:
    return html.unescape(re.sub(r"<[^>]+>", " ", answer.text))


def change(workshop, brief_id, edit):
    opened = workshop.open(brief_id)
    workshop.change(brief_id, opened.version, lambda plan: (edit(plan), "changed"))


def all_views(client, brief_id):
    for view in VIEWS:
        answer = client.get(f"/briefs/{brief_id}/{view}")
        assert answer.status_code == 200, (view, re.search(r"alert[^>]*>(.{200})", answer.text))
        assert not re.search(r"\b(nan|inf)\b", words(answer)), view


# --- ordinary use ---


def test_a_game_that_is_gone_leaves_every_view_and_its_target_can_go(client, workshop):
    catalogue = workshop.catalogue().described
    target = workshop.open(1).plan.brief.targets[0]
    games = {key: game for key, game in catalogue.games.items() if key != target.game_id}
    workshop.import_catalogue(replace(catalogue, games=games), "without one")
    all_views(client, 1)
    shown = client.get("/briefs/1/brief")
    assert f"“{target.game_id}”, which the catalogue no longer has" in words(shown)
    assert client.get("/briefs").status_code == 200
    assert client.get("/api/v1/briefs/1").status_code == 200
    kept = client.get("/briefs/1/file/brief").json()
    assert target.game_id in json.dumps(kept), "what is stored is kept as it is"
    gone = client.post(f"/briefs/1/targets/{target.id}/remove", data=form(workshop))
    assert gone.status_code == 200 and "which the catalogue no longer has" not in words(gone)
    workshop.import_catalogue(catalogue, "with it again")
    assert target.id not in {each.id for each in workshop.open(1).plan.brief.targets}


def test_a_list_with_two_types_of_memory_and_no_board(client, workshop):
    kits = {kit.memory_type: kit.id for kit in workshop.catalogue().by_kind["memory"]}
    plan = workshop.open(1).plan
    mixed = Build(processor=plan.build.processor, graphics=plan.build.graphics)
    for kit_id in kits.values():
        mixed = mixed.with_kit(kit_id)
    change(workshop, 1, lambda plan: replace(plan, build=mixed))
    all_views(client, 1)
    assert "do not go onto one mainboard" in words(client.get("/briefs/1/fit"))


@pytest.mark.parametrize("budget", [0, 1, 10_000_000_00])
def test_budgets_at_the_ends(client, workshop, budget):
    change(
        workshop,
        1,
        lambda plan: replace(
            plan, brief=replace(plan.brief, budget_low_minor=0, budget_high_minor=budget)
        ),
    )
    all_views(client, 1)


def test_a_ray_traced_low_in_money(client, workshop):
    def traced(plan):
        target = next(t for t in plan.brief.targets if t.ray_tracing)
        return replace(
            plan, brief=replace(plan.brief, targets=(replace(target, measure="low", fps=30.0),))
        )

    change(workshop, 1, traced)
    target = workshop.open(1).plan.brief.targets[0]
    for build in ("", "&try=graphics:"):
        answer = client.get(f"/briefs/1/frames?settings={target.id}&money=1{build}")
        assert answer.status_code == 200


EXTREMES = {
    "supply": {"watts": 1, "spike_w": 1},
    "cooler": {"capacity_w": 1},
    "processor": {"single_speed": 0.01, "all_core_speed": 0.01, "sustained_w": 5000},
    "graphics": {"speed_1080p": 100_000, "board_power_w": 5000},
}


@exhaustive
@pytest.mark.parametrize("kind", list(EXTREMES)[: extent(1, None)])
def test_what_a_format_accepts_breaks_no_page(client, workshop, kind):
    catalogue = workshop.catalogue().described
    brief_id = 4 if kind == "cooler" else 1
    (part_id,) = workshop.open(brief_id).plan.build.of(kind)
    part = replace(catalogue.part(part_id), **_known(catalogue.part(part_id), EXTREMES[kind]))
    workshop.import_catalogue(
        replace(catalogue, parts={**catalogue.parts, part_id: part}), "extreme"
    )
    all_views(client, brief_id)
    assert client.get(f"/parts/{part_id}").status_code == 200
    assert client.get("/parts/scale").status_code == 200


def _known(part, values):
    return {name: value for name, value in values.items() if hasattr(part, name)}


@pytest.mark.parametrize(
    ("file", "cell", "instead"),
    [
        ("supplies.csv", "watts", "0"),
        ("coolers.csv", "capacity_w", "0"),
        ("processors.csv", "single_speed", "1e-320"),
        ("graphics.csv", "speed_1080p", "nan"),
        ("processors.csv", "single_speed", "inf"),
        ("processors.csv", "cores", "9" * 5000),
    ],
)
def test_what_would_break_a_formula_is_not_accepted(tmp_path, capsys, file, cell, instead):
    from tests.store.test_upkeep import run

    folder = _exported(tmp_path)
    lines = (folder / file).read_text().splitlines()
    cells = lines[1].split(",")
    cells[lines[0].split(",").index(cell)] = instead
    (folder / file).write_text("\n".join([lines[0], ",".join(cells), *lines[2:]]))
    code, said = run(capsys, "import", folder, "--database", tmp_path / "x.sqlite")
    assert code == 2 and f"{file}, line 2, column {cell}" in said
    assert len(said) < 2000


def _exported(tmp_path):
    from wattmetron.formats.catalogue_writing import write_catalogue

    write_catalogue(read_catalogue(CATALOGUE), tmp_path / "catalogue")
    return tmp_path / "catalogue"


def test_a_catalogue_without_regions_is_not_accepted(tmp_path, capsys):
    from tests.store.test_upkeep import run

    folder = _exported(tmp_path)
    header = (folder / "regions.csv").read_text().splitlines()[0]
    (folder / "regions.csv").write_text(header + "\n")
    code, said = run(capsys, "import", folder, "--database", tmp_path / "x.sqlite")
    assert code == 2 and "regions.csv: found no region" in said
    assert said.count("\n") == 2, "and nothing follows from it"


def test_one_broken_file_of_parts_is_one_problem(tmp_path, capsys):
    from tests.store.test_upkeep import run

    folder = _exported(tmp_path)
    (folder / "processors.csv").write_text("flavour\nsweet\n")
    code, said = run(capsys, "import", folder, "--database", tmp_path / "x.sqlite")
    assert code == 2 and "an unknown column" in said and "offers.csv" not in said


def _paths(router):
    for route in router.routes:
        yield getattr(route, "path", "")
        if hasattr(route, "original_router"):
            yield from _paths(route.original_router)


def test_words_that_addresses_need_are_no_ids(client):
    places = {
        pieces[2]
        for route in _paths(client.app.router)
        if (pieces := route.split("/"))[1:2] in (["parts"], ["games"])
        and len(pieces) > 2
        and re.fullmatch(r"[a-z0-9-]+", pieces[2])
    }
    assert {"new", "scale", "read"} <= places
    assert places <= ADDRESSES
    assert not any(is_id(word) for word in ADDRESSES)


# --- briefs and catalogue that cannot be read ---


def broken(path, statement, *values):
    with closing(sqlite3.connect(path)) as database, database:
        database.execute(statement, values)


def test_a_broken_brief_takes_no_place_down(client, database_path):
    broken(database_path, "UPDATE briefs SET document='{half' WHERE id=2")
    for path in ("/briefs", "/games", "/parts", "/api/v1/briefs", "/briefs/1/frames"):
        assert client.get(path).status_code == 200, path
    assert "Brief 2 cannot be read" in words(client.get("/briefs"))
    assert "Brief 2 cannot be read" in words(client.get("/briefs/2/frames"))
    assert client.get("/briefs/2/file/stored").text == "{half"
    answer = client.post("/briefs/2/delete", data={"version": "1"})
    assert answer.status_code == 200 and "cannot be read" not in words(answer)


def test_a_part_that_cannot_be_read_is_left_out(client, database_path):
    broken(database_path, "UPDATE entries SET data='?' WHERE kind='graphics' AND id%2=0")
    all_views(client, 1)
    assert client.get("/parts?kind=graphics").status_code == 200


# --- what is sent ---

POSTED = [
    ("/briefs/1/edit", {"budget_high": "9" * 5000}),
    ("/briefs/1/edit", {"budget_high": "nan"}),
    ("/briefs/1/edit", {"refresh_hz": "1e999"}),
    ("/briefs/1/edit", {"size": "9" * 50 + "x9"}),
    ("/briefs/1/edit", {"seats": "1e308"}),
    ("/briefs/1/targets", {"game": "hollow-meridian", "tier": str(BEYOND)}),
    ("/briefs/1/prefer", {"place": str(BEYOND), "act": "drop"}),
    ("/briefs/1/extras/99999999999999999999999/remove", {}),
    (f"/briefs/{BEYOND}/clear", {}),
    ("/parts/undo", {"edit": str(BEYOND)}),
    ("/parts/undo", {"edit": "99999999999"}),
    ("/games/hollow-meridian/undo", {"game_version": str(BEYOND)}),
    (f"/briefs/{BEYOND}/delete", {"version": str(BEYOND)}),
    ("/briefs/1/delete", {"version": "9" * 6000}),
]


@pytest.mark.parametrize(("path", "entries"), POSTED)
def test_numbers_beyond_all_bounds_in_forms(client, workshop, path, entries):
    answer = client.post(path, data={**form(workshop), **entries})
    assert 300 <= answer.status_code < 500 or answer.status_code == 200
    assert words(answer).strip()


@pytest.mark.parametrize(
    "path",
    [
        f"/briefs/{BEYOND}/fit",
        f"/briefs/-{BEYOND}/fit",
        f"/briefs/{'9' * 5000}/fit",
        f"/api/v1/briefs/{BEYOND}",
        f"/games?brief={BEYOND}",
        "/games?brief=99999999999",
        f"/parts?kind=fan&brief={BEYOND}&page={BEYOND}",
        "/parts?page=99999999999&done=99999999999",
        "/games?page=99999999999",
        f"/briefs/1/steps?amounts={'9' * 90}",
        f"/briefs/1/balance?purse={'9' * 19}&step={'9' * 13}&faster=1e999",
        "/briefs/1/frames?price=1e400&place=%00&q=%00%ff",
        "/briefs/1/brief%0d%0aX-Injected:%20yes",
        "/briefs/1/nonsense",
        f"/api/v1/runs?brief={BEYOND}",
        f"/api/v1/runs/{BEYOND}/frames",
        f"/measured/{BEYOND}",
        f"/sets/{BEYOND}",
    ],
)
def test_numbers_beyond_all_bounds_in_addresses(client, path):
    answer = client.get(path)
    assert answer.status_code < 500
    assert "x-injected" not in answer.headers


def test_a_view_that_is_none_ends_in_no_header(client, workshop):
    entries = form(workshop) | {"view": "frames\r\nX-Injected: yes"}
    answer = client.post("/briefs/1/clear", data=entries, headers=HTMX)
    assert answer.status_code == 200
    assert answer.headers["hx-push-url"] == "/briefs/1/brief"


JSON_BODIES = {
    "deep": "[" * 100_000,
    "deep in a field": '{"brief": ' + '{"a":' * 50_000 + "1" + "}" * 50_000 + "}",
    "NaN": '{"brief": {"name": NaN}}',
    "infinite": '{"brief": {"budget": [1e999, 1]}}',
    "surrogate": '{"brief": {"name": "\\ud800"}, "\\udfff": 1}',
    "digits": '{"version": ' + "9" * 5000 + "}",
    "no JSON": "{",
    "no text": b"\xff\xfe\x00",
    "text": '"x"',
    "nothing": "null",
}


@pytest.mark.parametrize("body", JSON_BODIES)
@pytest.mark.parametrize("path", ["/api/v1/propose", "/api/v1/briefs", "/api/v1/briefs/1"])
def test_json_of_any_kind_is_answered(client, path, body):
    ask = client.put if path.endswith("1") else client.post
    answer = ask(path, content=JSON_BODIES[body], headers={"content-type": "application/json"})
    assert 400 <= answer.status_code < 500
    assert answer.json()["error"]


def test_json_versions_and_ids_beyond_the_database(client):
    stored = client.get("/api/v1/briefs/1").json()
    asked = {"brief": stored["brief"], "build": stored["build"], "version": BEYOND}
    assert client.put("/api/v1/briefs/1", json=asked).status_code == 409
    assert client.delete(f"/api/v1/briefs/1?version={BEYOND}").status_code == 409
    assert client.post(f"/api/v1/briefs/{BEYOND}/undo?version=1").status_code == 404


def test_characters_that_no_file_can_carry_are_not_stored(client, workshop):
    entries = form(workshop) | {"name": "a\x00b\x1fc\x85d\u2028e"}
    client.post("/briefs/1/edit", data=entries)
    assert workshop.open(1).plan.brief.name == "abcd\u2028e"
    stored = client.get("/api/v1/briefs/1").json()
    stored["brief"]["name"] = "x\x00y\rz"
    client.post("/api/v1/briefs", json={"brief": stored["brief"]})
    assert "\x00" not in workshop.briefs()[-1].plan.brief.name


def test_nobody_puts_words_into_a_page_by_its_address(client):
    for name in ("said", "error", "notice", "refused"):
        answer = client.get(f"/parts?{name}=Your+machine+is+on+fire")
        assert "on fire" not in answer.text
    answer = client.post("/parts/undo", data={"edit": "999", "kind": "fan"})
    assert "no such edit" in words(answer), "what was really done is told"


# --- errors ---


def test_an_error_of_a_part_leaves_the_page_and_says_what_to_do(client):
    answer = client.get("/briefs/99/fit", headers=HTMX)
    assert answer.headers["hx-retarget"] == "#trouble"
    assert answer.headers["hx-reswap"] == "innerHTML"
    assert answer.headers["hx-push-url"] == "false"
    assert "no such brief" in answer.text and 'id="desk"' not in answer.text
    waiting = client.get("/briefs/99/fit", headers={**HTMX, "HX-Trigger": "waiting"})
    assert 'id="desk"' in waiting.text


@pytest.mark.parametrize("made", [False, True])
def test_the_unexpected_says_whether_something_was_changed(workshop, monkeypatch, made):
    client = TestClient(
        make_app(workshop), base_url="http://127.0.0.1", raise_server_exceptions=False
    )

    def fail(*_, **__):
        raise RuntimeError

    name = (
        "wattmetron.places.desk.pages.desk_change_routes.show"
        if made
        else "wattmetron.places.desk.pages.routes.page"
    )
    monkeypatch.setattr(name, fail)
    ask = client.post if made else client.get
    path = "/briefs/1/clear" if made else "/briefs/1/fit"
    answer = ask(path, **({"data": form(workshop), "headers": HTMX} if made else {}))
    assert answer.status_code == 500
    expected = "after the change was made: it is kept" if made else "nothing was changed"
    assert expected in words(answer)
    assert workshop.open(1).plan.build.empty is made


def raw(client, path="/briefs", method="GET", **headers):
    return client.request(
        method, path, headers={k.replace("_", "-"): v for k, v in headers.items()}
    )


ANSWERS = {
    200: lambda c: c.get("/briefs"),
    303: lambda c: c.get("/", follow_redirects=False),
    400: lambda c: c.get("/briefs", headers={"host": "elsewhere.example"}),
    403: lambda c: c.post("/briefs", headers={"origin": "http://elsewhere.example"}),
    404: lambda c: c.get("/static/none.js"),
    405: lambda c: c.put("/briefs"),
    411: lambda c: c.post("/briefs", content=(b for b in [b"x"])),
    413: lambda c: c.post("/briefs", content=b"x" * 2_000_001),
    422: lambda c: c.get("/parts?kind=teapot"),
}


@pytest.mark.parametrize("status", ANSWERS)
def test_every_answer_is_protected(client, status):
    answer = ANSWERS[status](client)
    assert answer.status_code == status
    for header in (
        "content-security-policy",
        "x-content-type-options",
        "cross-origin-resource-policy",
        "cross-origin-opener-policy",
        "referrer-policy",
    ):
        assert len(answer.headers.get_list(header)) == 1, header
    if status >= 400:
        assert 'href="/briefs"' in answer.text and "<h1>" in answer.text


# --- doors ---


def test_no_test_name_is_known(client):
    assert client.get("/briefs", headers={"host": "testserver"}).status_code == 400
    for name in ("localhost", "127.0.0.1:8321", "[::1]:9", "LOCALHOST"):
        assert client.get("/briefs", headers={"host": name}).status_code == 200


def test_a_length_and_chunks_are_refused_and_bytes_are_counted(client):
    both = {"content-length": "10", "transfer-encoding": "chunked"}
    answer = client.post("/briefs/open", content=(b"x" * 1000 for _ in range(3000)), headers=both)
    assert answer.status_code == 400 and "two ways" in words(answer)
    lying = {"content-length": "10", "content-type": "multipart/form-data; boundary=x"}
    answer = client.post("/briefs/open", content=b"x" * 3_000_000, headers=lying)
    assert answer.status_code == 413


CROSS = {"sec-fetch-site": "cross-site"}
NAVIGATION = CROSS | {"sec-fetch-mode": "navigate", "sec-fetch-dest": "document"}


@pytest.mark.parametrize(
    ("path", "headers", "status"),
    [
        ("/briefs/1/frames?propose=most", CROSS | {"sec-fetch-mode": "no-cors"}, 403),
        ("/briefs/1/balance", {"sec-fetch-site": "same-site", "sec-fetch-mode": "cors"}, 403),
        ("/briefs", NAVIGATION | {"sec-fetch-dest": "iframe"}, 403),
        ("/briefs/1/balance", NAVIGATION, 403),
        ("/briefs", NAVIGATION, 200),
        ("/static/app.css", CROSS, 200),
        ("/briefs/1/balance", {"sec-fetch-site": "none"}, 200),
        ("/briefs/1/balance", {"sec-fetch-site": "same-origin"}, 200),
    ],
)
def test_other_pages_make_nothing_be_worked_out(client, path, headers, status):
    answer = client.get(path, headers=headers)
    assert answer.status_code == status
    if headers.get("sec-fetch-dest") == "document" and status == 403:
        assert f'href="{path}"' in answer.text, "whoever meant it can go on"


WORDS = "three gulls on a mast"


@pytest.fixture(scope="module")
def kept():
    return passphrase.hashed(WORDS)


@pytest.fixture
def shared(workshop, kept):
    app = make_app(workshop, ["bench.example"], Door(kept, "the-key", Sessions(workshop, kept)))
    return TestClient(app, base_url="http://bench.example", follow_redirects=False)


def as_cookie(cookies):
    return {"cookie": "; ".join(f"{name}={value}" for name, value in cookies.items())}


def log_in(shared, words=WORDS):
    return shared.post("/enter", data={"passphrase": words})


def test_a_shared_application_lets_nobody_in_without_a_session(shared, workshop):
    for path in ("/briefs", "/api/v1/briefs", "/briefs/1/file/brief", "/parts/template.zip"):
        assert shared.get(path).status_code == 401, path
    browser = {"accept": "text/html,*/*"}
    assert shared.get("/briefs", headers=browser).headers["location"] == "/enter"
    assert shared.post("/briefs/1/clear", data=form(workshop)).status_code == 401
    assert not workshop.open(1).plan.build.empty
    for path in ("/static/app.css", "/enter", "/healthz"):
        assert shared.get(path).status_code == 200, path
    assert shared.get("/briefs", headers=as_cookie({COOKIE: "1.2.3"})).status_code == 401
    assert shared.get("/briefs", headers={"host": "127.0.0.1"}).status_code == 400


def test_the_passphrase_lets_a_browser_in_and_the_key_a_program(shared):
    wrong = log_in(shared, "four gulls on a mast")
    assert wrong.status_code == 401 and "not the passphrase" in wrong.text
    entered = log_in(shared)
    cookie = entered.headers["set-cookie"].lower()
    assert entered.status_code == 303 and "httponly" in cookie and "samesite=strict" in cookie
    assert shared.get("/briefs").status_code == 200
    shared.cookies.clear()
    bearer = {"authorization": "Bearer the-key"}
    assert shared.get("/api/v1/briefs", headers=bearer).status_code == 200
    assert shared.get("/briefs", headers={"authorization": "Bearer "}).status_code == 401
    foreign = {"origin": "http://elsewhere.example"}
    assert shared.post("/enter", data={"passphrase": WORDS}, headers=foreign).status_code == 403


def browser(shared):
    return TestClient(shared.app, base_url="http://bench.example", follow_redirects=False)


def test_logging_out_ends_this_browser_or_all(shared):
    log_in(shared)
    other = browser(shared)
    log_in(other)
    assert shared.get("/briefs").status_code == other.get("/briefs").status_code == 200
    assert "Log out" in squeezed(shared.get("/briefs").text)
    copied = dict(shared.cookies)
    shared.post("/leave")
    assert shared.get("/briefs").status_code == 401 and other.get("/briefs").status_code == 200
    assert shared.get("/briefs", headers=as_cookie(copied)).status_code == 401, (
        "a copy lets nobody in"
    )
    old = dict(other.cookies)
    other.post("/leave", data={"everywhere": "1"})
    assert other.get("/briefs", headers=as_cookie(old)).status_code == 401


def test_browsers_are_listed_with_their_last_use_and_end_one_by_one(shared):
    log_in(shared)
    other = browser(shared)
    agent = {"user-agent": "Mozilla/5.0 (X11; Linux x86_64) Firefox/140.0"}
    other.post("/enter", data={"passphrase": WORDS}, headers=agent)
    text = shared.get("/sessions").text
    assert "Firefox on Linux" in text and text.count("(this one)") == 1
    (theirs,) = [own.id for own in shared.app.state.door.sessions.all() if "Firefox" in own.browser]
    assert shared.post(f"/sessions/{theirs}/end").headers["location"] == "/sessions"
    assert other.get("/briefs").status_code == 401 and shared.get("/briefs").status_code == 200
    late = shared.post(f"/sessions/{theirs}/end")
    assert late.status_code == 404 and "ended already" in late.text
    (own,) = [own.id for own in shared.app.state.door.sessions.all()]
    assert shared.post(f"/sessions/{own}/end").headers["location"] == "/enter"
    assert shared.get("/sessions").status_code == 401


def test_where_nobody_logs_in_no_browser_is_listed(client):
    answer = client.get("/sessions")
    assert answer.status_code == 404 and "Nobody has to log in" in answer.text


def test_a_session_outlives_a_restart_but_not_a_week_or_another_passphrase(workshop, kept):
    now = [datetime(2026, 12, 1, tzinfo=UTC)]
    sessions = Sessions(workshop, kept, lambda: now[0])
    token = sessions.begin("a browser", "10.0.0.9")
    assert sessions.of(token).address == "10.0.0.9"
    for made_up in ("", ".", token[:-1], token + "0", "9" * 5000):
        assert sessions.of(made_up) is None, made_up[:40]
    now[0] += timedelta(minutes=5)
    assert sessions.of(token)
    again = Sessions(workshop, kept, lambda: now[0])
    assert again.of(token).used_at == now[0]
    assert Sessions(workshop, "another").of(token) is None
    now[0] += SESSION
    assert again.of(token) is None and again.all() == ()


def test_what_is_stored_of_a_session_lets_nobody_in(workshop, kept, database_path):
    token = Sessions(workshop, kept).begin("a browser", "10.0.0.9")
    with closing(sqlite3.connect(database_path)) as connection:
        rows = connection.execute("SELECT * FROM sessions").fetchall()
    assert len(rows) == 1 and token not in str(rows)
    stored = next(cell for cell in rows[0] if isinstance(cell, str) and len(cell) == 64)
    assert Sessions(workshop, kept).of(stored) is None


def test_five_wrong_tries_a_minute_and_no_more(shared):
    for _ in range(5):
        assert log_in(shared, "wrong words here").status_code == 401
    late = log_in(shared)
    assert late.status_code == 429 and "wait a minute" in late.text
    now = [0.0]
    tries = passphrase.Tries(lambda: now[0])
    for n in range(passphrase.MOST_TRIES_OF_ALL):
        assert tries.may_try(f"address {n}")
    assert tries.may_try("another"), "nobody is locked out by what others do"
    assert not tries.may_try("another") and passphrase.Tries(lambda: now[0]).may_try("another")
    now[0] += passphrase.WINDOW_S + 1
    assert tries.may_try("another")


def test_many_wrong_tries_at_once_are_no_more_than_five(kept, monkeypatch):
    door, asked = Door(kept), SimpleNamespace(client=SimpleNamespace(host="10.0.0.9"))
    all_there = Barrier(20)
    real = door.tries.may_try

    def together(address):
        all_there.wait(10)
        return real(address)

    monkeypatch.setattr(door.tries, "may_try", together)
    with ThreadPoolExecutor(20) as pool:
        said = list(pool.map(lambda n: door.entered(asked, f"wrong words {n}")[1], range(20)))
    assert sorted(said) == [401] * 5 + [429] * 15
    monkeypatch.undo()
    once = Door(kept)
    assert [once.entered(asked, WORDS)[1] for _ in range(9)] == [303] * 9, "right ones are free"


def test_a_passphrase_is_kept_as_a_hash_and_of_sensible_length(tmp_path, kept):
    assert WORDS not in kept and passphrase.matches(WORDS, kept)
    assert kept != passphrase.hashed(WORDS), "salted"
    for odd in ("", "nonsense", "scrypt$1$1$1$zz$zz", kept[:-2]):
        assert not passphrase.matches(WORDS, odd)
    assert not passphrase.matches("x" * 1_000_000, kept)
    for bad in ("short", "x" * 1001, ""):
        with pytest.raises(InvalidError, match="letters"):
            passphrase.hashed(bad)
    passphrase.keep(kept, tmp_path / "deep" / "own.passphrase")
    path = tmp_path / "deep" / "own.passphrase"
    assert path.read_text().strip() == kept and path.stat().st_mode & 0o077 == 0


def test_beyond_this_machine_it_starts_with_a_passphrase_alone(tmp_path, monkeypatch):
    options = argparse.Namespace(passphrase_file=None)
    database = tmp_path / "own.sqlite"
    monkeypatch.setattr("sys.stdin.isatty", lambda: False, raising=False)
    with pytest.raises(NotPossibleError, match="--passphrase-file"):
        serving._passphrase(options, database)
    file = tmp_path / "words.txt"
    for text, error in (("short\n", "letters"), ("", "letters")):
        file.write_text(text)
        with pytest.raises(InvalidError, match=error):
            serving._passphrase(argparse.Namespace(passphrase_file=file), database)
    file.write_text(f"{WORDS}\nmore\n")
    made = serving._passphrase(argparse.Namespace(passphrase_file=file), database)
    assert passphrase.matches(WORDS, made)
    assert serving._passphrase(options, database).strip() == made
    gone = argparse.Namespace(passphrase_file=tmp_path / "gone")
    with pytest.raises(InvalidError, match="cannot be read"):
        serving._passphrase(gone, database)


# --- the database in trouble, as a page ---


def test_a_busy_and_a_moved_database_are_told_on_the_page(client, workshop, database_path):
    workshop.database.patience_ms = 100
    with closing(sqlite3.connect(database_path, isolation_level=None)) as other:
        other.execute("BEGIN IMMEDIATE")
        answer = client.post("/briefs/1/clear", data=form(workshop), headers=HTMX)
        assert "is busy" in words(answer)
        other.execute("ROLLBACK")
    entries = form(workshop)
    database_path.unlink()
    answer = client.post("/briefs/1/clear", data=entries, headers=HTMX)
    assert "deleted or replaced" in words(answer) and "nothing was changed" in words(answer)
    assert client.post("/briefs").status_code == 503
    assert not workshop.open(1).plan.build.empty


TYPED = {
    "/briefs/1/clear": {"view": "brief"},
    "/briefs/1/snapshots": {"name": "Kept"},
    "/briefs/1/links": {"ends": ""},
    "/briefs": {},
}


@pytest.mark.parametrize(("pragma", "said"), [("query_only=1", "read-only"), ("", "is full")])
def test_a_disk_that_takes_nothing_is_told_on_every_page(client, workshop, pragma, said):
    """What is shown goes on being shown, and nothing is half there."""
    before = workshop.open(1).plan
    with workshop.database.engine.connect() as connection:
        pages, free = (
            connection.exec_driver_sql(f"PRAGMA {name}").scalar()
            for name in ("page_count", "freelist_count")
        )

    @event.listens_for(workshop.database.engine, "checkout")
    def refuse(connection, *_):
        connection.execute(f"PRAGMA {pragma or f'max_page_count={pages - free}'}")

    told = set()
    for path, entries in TYPED.items():
        for _ in range(1 if pragma else 60):
            typed = {"version": str(workshop.open(1).version)} | entries
            answer = client.post(path, data=typed, headers=HTMX)
            if answer.status_code >= 400:
                assert said in words(answer) and "nothing was changed" in words(answer), path
                told.add(path)
                break
    assert told == TYPED.keys() if pragma else told
    assert client.get("/briefs/1/fit").status_code == client.get("/parts").status_code == 200
    if pragma:
        assert workshop.open(1).plan == before


@pytest.mark.parametrize(
    "path",
    [f"/briefs/1/links/{BEYOND}/revoke", f"/briefs/1/snapshots/{BEYOND}/remove"],
)
def test_what_is_changed_by_a_number_beyond_all_bounds_is_not_there(client, workshop, path):
    answer = client.post(path, data=form(workshop), headers=HTMX)
    assert 400 <= answer.status_code < 500


def test_a_session_of_a_number_beyond_all_bounds_is_not_there(shared):
    log_in(shared)
    assert shared.post(f"/sessions/{BEYOND}/end").status_code == 404
