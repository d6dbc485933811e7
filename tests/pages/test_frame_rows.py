"""Frame rows in words where frames are generated, or could be."""

from dataclasses import replace

from tests.core.test_generated import able
from wattmetron.core.frames.estimate import estimate
from wattmetron.places.frames.pages.frames import FrameRowView


def row(machine, game, target, brief):
    return FrameRowView(
        target=target,
        game=game.name,
        settings="",
        wanted="",
        state="",
        rate="",
        change="",
        counted=True,
        lacking="",
        estimate=estimate(machine, game, target, brief),
        brief=brief,
    )


def test_a_row_tells_frames_shown_from_those_drawn_and_whose_cap_holds_them():
    machine, game, plain, shown, brief = able(5, 60.0)
    game = replace(game, graphics_ms=0.5, processor_ms=0.5)
    shown, plain = (replace(target, fps=100.0, measure="average") for target in (shown, plain))
    made = row(machine, game, shown, brief)
    assert "drawn before generation, which adds" in made.drawn and made.why.startswith("Shown at")
    assert "ms a drawn frame" in made.readout
    unable = replace(machine, graphics=replace(machine.graphics, generators=()))
    held = row(unable, game, shown, brief)
    assert (
        held.why == "Not met here: capped at 60 fps; a card that generates frames would show more."
    )
    assert held.drawn == "" and "drawn frame" not in held.readout
    assert row(machine, game, plain, brief).why == (
        "Cannot be met: capped at 60 fps; ask for at most that."
    )
    uncapped = replace(game, engine_cap_fps=None)
    assert "Frame generation is not offered here" in row(unable, uncapped, shown, brief).why
