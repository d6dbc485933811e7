"""Pictures of parts: drawn from figures, or the user's own, checked and made small."""

import io
import re
import resource
from concurrent.futures import ThreadPoolExecutor
from xml.etree import ElementTree

import pytest
from PIL import Image

from tests.worlds import World
from wattmetron.core.values.part_kinds import ALL_KINDS
from wattmetron.drawing.part_picture import HEIGHT, WIDTH, part_picture
from wattmetron.formats.picture_file import KEPT_PX, MOST_PIXELS, PictureError, kept_picture

PART = "boxwood-yard-hold"


def a_picture(kind="PNG", size=(1200, 300), **more):
    out = io.BytesIO()
    Image.new("RGB", size, (200, 40, 10)).save(out, kind, **more)
    return out.getvalue()


def a_photo_taken_sideways():
    exif = Image.Exif()
    exif[0x0112], exif[0x010F] = 6, "Saltmarsh Optics"
    return a_picture("JPEG", (800, 400), exif=exif)


@pytest.mark.parametrize("made", [(), ("JPEG",), ("WEBP", (30, 20))])
def test_a_picture_is_kept_small_as_webp(made):
    data = a_picture(*made)
    kept = Image.open(io.BytesIO(kept_picture("own", data)))
    assert kept.format == "WEBP" and all(a <= b for a, b in zip(kept.size, KEPT_PX, strict=True))
    before = Image.open(io.BytesIO(data)).size
    assert abs(kept.size[0] / kept.size[1] - before[0] / before[1]) < 0.05


def test_a_photo_stands_upright_and_says_nothing_of_the_camera():
    kept = kept_picture("own.jpg", a_photo_taken_sideways())
    opened = Image.open(io.BytesIO(kept))
    assert opened.height > opened.width and not opened.getexif() and b"Saltmarsh" not in kept


BAD = {
    "a text": (lambda: b"no picture at all", "is no picture that can be read"),
    "half of one": (lambda: a_picture()[:60], "is no picture that can be read"),
    "svg with script": (
        lambda: b'<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>',
        "can hold scripts",
    ),
    "svg with a mark before": (
        lambda: b"\xef\xbb\xbf\n <?xml version='1.0'?><svg/>",
        "can hold scripts",
    ),
    "a page called png": (lambda: b"<!doctype html><script>alert(1)</script>", "can hold scripts"),
    "another format": (lambda: a_picture("BMP", (20, 20)), "is no picture that can be read"),
    "too many pixels": (
        lambda: a_picture("PNG", (MOST_PIXELS // 1000 + 1, 1000)),
        "make it smaller, up to 10 million",
    ),
}


@pytest.mark.parametrize(("make", "said"), BAD.values(), ids=BAD)
def test_what_is_no_picture_is_refused_in_words_and_nothing_changes(client, workshop, make, said):
    answer = client.post(
        f"/parts/{PART}/picture", data={"version": "0"}, files={"file": ("own.png", make())}
    )
    assert said in answer.text and answer.status_code == 200
    assert client.get(f"/parts/{PART}/picture").status_code == 404
    assert not workshop.catalogue().pictures


def test_sixteen_large_pictures_at_once_are_made_small_one_after_the_other():
    """A photo of twenty megapixels is decoded small, never whole; no two are worked on at once."""
    photo, drawing = a_picture("JPEG", (5000, 4000)), a_picture("PNG", (3000, 3000))
    grown = []

    def keep(data):
        kept_picture("own", data)
        grown.append(resource.getrusage(resource.RUSAGE_SELF).ru_maxrss)

    keep(drawing)
    with ThreadPoolExecutor(16) as pool:
        list(pool.map(keep, [photo, drawing] * 8))
    assert (max(grown) - grown[0]) * 1024 < 40_000_000
    with pytest.raises(PictureError, match="20 million"):
        kept_picture("own", a_picture("JPEG", (5000, 4001)))


def test_fifty_megabytes_are_refused_unread(client):
    huge = client.post(
        f"/parts/{PART}/picture",
        data={"version": "0"},
        files={"file": ("a.png", b"0" * 50_000_000)},
    )
    assert huge.status_code == 413


def test_the_users_picture_stands_everywhere_until_it_is_taken_back(client, workshop):
    def shown():
        pages = (f"/parts/{PART}", "/parts?kind=case", "/briefs/1/fit?swap=case&all=1")
        return [
            len(re.findall(rf'src="/parts/{PART}/picture\?of=', client.get(page).text))
            for page in pages
        ]

    assert shown() == [0, 0, 0]
    kept = client.post(
        f"/parts/{PART}/picture", data={"version": "0"}, files={"file": ("own.png", a_picture())}
    ).text
    assert shown() == [1, 1, 1]
    answer = client.get(f"/parts/{PART}/picture")
    assert answer.headers["content-type"] == "image/webp"
    assert answer.headers["x-content-type-options"] == "nosniff"
    assert answer.content == kept_picture("own.png", a_picture())
    stale = client.post(
        f"/parts/{PART}/picture", data={"version": "0"}, files={"file": ("b.png", a_picture())}
    )
    assert "changed in another tab" in stale.text
    workshop.import_catalogue(workshop.catalogue(), "the same once more")
    assert shown() == [1, 1, 1]
    edit = re.search(r'name="edit" value="(\d+)"', kept)[1]
    client.post("/parts/undo", data={"edit": edit, "kind": "case"})
    assert shown() == [0, 0, 0] and client.get(f"/parts/{PART}/picture").status_code == 404


def test_back_to_the_drawing(client, workshop):
    client.post(
        f"/parts/{PART}/picture", data={"version": "0"}, files={"file": ("own.png", a_picture())}
    )
    page = client.get(f"/parts/{PART}").text
    version = re.search(
        r'/picture"[^>]*>\s*<input type="hidden" name="version" value="(\d+)"', page
    )
    client.post(f"/parts/{PART}/picture", data={"version": version[1], "away": "1"})
    assert not workshop.catalogue().pictures


def test_every_part_of_any_catalogue_is_drawn_within_its_field(workshop):
    worlds = [
        workshop.catalogue(),
        *(World(seed).catalogue(per_kind=6, games=1) for seed in (3, 4)),
    ]
    drawn = set()
    for world in worlds:
        for kind in ALL_KINDS:
            for part in world.by_kind[kind]:
                root = ElementTree.fromstring(str(part_picture(part)))
                shapes = list(root)
                assert shapes, part
                for own in shapes:
                    if own.tag == "rect":
                        x, y, wide, high = (
                            float(own.get(a)) for a in ("x", "y", "width", "height")
                        )
                        assert wide > 0 and high > 0, (part, own.attrib)
                        assert x >= -1 and x + wide <= WIDTH + 1, (part, own.attrib)
                        assert y >= -3 and y + high <= HEIGHT + 1, (part, own.attrib)
                drawn.add(kind)
    assert drawn == set(ALL_KINDS)
