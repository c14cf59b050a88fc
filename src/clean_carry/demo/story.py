"""The demo company's components, carried and verified: the logic of `clean-carry demo`."""

from __future__ import annotations

import shutil
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from pathlib import Path

from clean_carry.component.errors import RuntimeMissing, WriteRefused
from clean_carry.component.result import Result
from clean_carry.crossing.carry import Request, carry_file
from clean_carry.demo import departures
from clean_carry.demo.desk import NAME, one_page
from clean_carry.project.writing import write_new
from clean_carry.syntaxes.registry import declared
from clean_carry.verify.pair import Trials, pair_of, trials_for, verified
from clean_carry.verify.runtimes import RUNTIMES, Say, ensure
from clean_carry.verify.told import told_of
from clean_carry.verify.verify import Effort, Verification
from clean_carry.verify.views import php
from clean_carry.verify.worker_pool import Bench

COMPANY = Path(__file__).with_name("gullmoor")
# The old booking desk: directives, one of which can be nothing else.
DESK = ("seat-counter.js", "berth-grid.js", "tide-notice.js", "drag-ticket.js")
COMPONENTS = (
    "SailingCard.jsx",
    "CargoChecklist.jsx",
    "CrewList.tsx",
    "NoticePanel.jsx",
    "BerthPicker.tsx",
    "TideStrip.jsx",
    "DepartureBoard.jsx",
    "TicketForm.tsx",
    "HarbourGuard.jsx",
)
# The passenger pages: single files, on the runtime's third version and on its second.
PAGES = (
    "passenger/SailingSearch.vue",
    "passenger/TicketBasket.vue",
    "passenger/SeatCounter.vue",
    "passenger/BoardingClock.vue",
    "passenger/NoticeDialog.vue",
    "passenger-older/WeatherStrip.vue",
    "passenger-older/CargoDeclaration.vue",
    "passenger-older/CrossingSheet.vue",
)
# The crew pages: one gets its newer notation, one becomes a single file.
CREW = (
    ("crew/crew-list.component.ts", "decorated-class"),
    ("crew/crew-detail.component.ts", "single-file-flat"),
)
# The departures: what only shows becomes a view of the server, what has state one that keeps it there.
DEPARTURES = (
    ("departures/DepartureTable.vue", "server-view"),
    ("departures/QuayBerths.vue", "server-view"),
    ("departures/ServiceNotice.vue", "server-view"),
    ("departures/SailingFilter.vue", "stateful-view"),
    ("departures/QuayTabs.vue", "stateful-view"),
    ("departures/SeatHold.vue", "stateful-view"),
    ("departures/ArrivalList.vue", "stateful-view"),
    ("departures/DepartureClock.vue", "stateful-view"),
)
STORY = (
    *((f"components/{name}", "jsx-function") for name in COMPONENTS),
    *((name, "single-file-flat") for name in PAGES),
    *CREW,
    *DEPARTURES,
    *((f"booking-desk/{name}", "controller-component") for name in DESK),
)
# The helper class that views of one folder share.
SHARED = "Js.php"
# Parts whose components are carried one by one, each with the component that stands for it.
PARTS = {
    "components": "SailingCard.jsx",
    "passenger": "SeatCounter.vue",
    "passenger-older": "WeatherStrip.vue",
    "crew": "crew-detail.component.ts",
    "departures": "QuayTabs.vue",
    "booking-desk": "tide-notice.js",
}


@dataclass(frozen=True)
class Chapter:
    """One component of the story. `new` and `verification` are None where it was refused."""

    path: Path
    result: Result
    new: Path | None
    verification: Verification | None

    @property
    def lines(self) -> tuple[int, int]:
        """Lines of the component's own file before, and after with the class of a view."""
        first, *others = self.result.files
        classes = [one for one in others if one.path.endswith(".php")]
        own = [first, *(one for one in classes if Path(one.path).name != SHARED)]
        return self.path.read_bytes().count(b"\n"), sum(one.data.count(b"\n") for one in own)

    @property
    def stays(self) -> bool:
        """Whether it can only be what it is."""
        return any(finding.rule.startswith("stays-") for finding in self.result.findings)


def settle_in(folder: Path) -> Path:
    """Copy the company's files into `folder`; raises `WriteRefused` where something stands there."""
    if folder.exists() and (not folder.is_dir() or any(folder.iterdir())):
        raise WriteRefused(
            "is there already and not empty", advice="Choose another with --into", file=str(folder)
        )
    try:
        shutil.copytree(COMPANY, folder, dirs_exist_ok=True)
    except OSError as error:
        raise WriteRefused(f"cannot be written ({error.strerror})", file=str(folder)) from None
    return folder


def tell(folder: Path, bench: Bench, part: str, *, whole: bool) -> Iterator[Chapter]:
    """Carry and verify the components of one part in `folder`: all, or the one that stands for it."""
    for name, target in STORY:
        path = folder / name
        if path.parent.name != part or not (whole or path.name == PARTS[part]):
            continue
        told = told_of(path, path.read_text("utf-8")) if declared(target).typed else ""
        result = carry_file(Request(path, str(path), target, told=told))[0]
        if not result.files:
            yield Chapter(path, result, None, None)
            continue
        new = Path(result.files[0].path)
        for file in result.files:
            if Path(file.path).name != SHARED or not Path(file.path).exists():
                write_new(Path(file.path), file.data)
        before, after, interface = pair_of(path, new)
        verification = verified(bench, (before, after), interface, trials_for(path, None), Effort())
        yield Chapter(path, result, new, verification)


def missing_for_views() -> str:
    """The missing part of views of a server, in words, or "" if everything is there."""
    try:
        php()
    except RuntimeMissing as missing:
        return str(missing)
    return ""


def desk_page(folder: Path, offline: bool, say: Say) -> Path:
    """Write the page on which the booking desk stands as it was and as it became."""
    desk = folder / "booking-desk"
    page = desk / NAME
    write_new(
        page, one_page(desk, ensure(RUNTIMES["angular-1"], offline=offline, say=say), DESK).encode()
    )
    return page


def departures_page(chapters: Sequence[Chapter], bench: Bench) -> tuple[Path, tuple[int, int]]:
    """Write the page on which the departures stand twice. Gives its path, and the bytes that a browser
    loads of them before and after."""
    carried = [one for one in chapters if one.new is not None]
    pairs = [
        (one.path, one.new, trial)
        for one in carried
        for trial in (trials_for(one.path, None).trials or ())[:1]
        if one.new is not None
    ]
    page = chapters[0].path.with_name(departures.NAME)
    write_new(page, departures.one_page(pairs, bench).encode())
    stays = [one.path for one in chapters if one.new is None]
    return page, departures.weight([one.path for one in chapters], stays, bench)


def searched(chapter: Chapter, bench: Bench, seconds: float) -> Verification:
    """Verify a carried component of the demo once more, with generated trials."""
    assert chapter.new is not None
    before, after, interface = pair_of(chapter.path, chapter.new)
    return verified(bench, (before, after), interface, Trials(None), Effort(seconds))
