"""Two components of the demo company walked through a whole migration, in applications that use them."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from pathlib import Path

from clean_carry.crossing.carry import Request, carry_file
from clean_carry.demo.story import COMPANY
from clean_carry.project.index.build import index_of
from clean_carry.project.journal import change, working_on
from clean_carry.project.survey import survey
from clean_carry.project.walk.pairs import Pair
from clean_carry.project.walk.retire import lines_of, retire
from clean_carry.project.walk.switch import switch, users_of
from clean_carry.project.writing import write_new
from clean_carry.verify.pair import Trials, pair_of, sides_of, verified
from clean_carry.verify.users import verify_users
from clean_carry.verify.verify import Effort
from clean_carry.verify.worker_pool import Bench

APPLICATIONS = "applications"
# The application, its component, the syntax to write, and the component at its top.
WALKS = (
    ("office", "src/components/DelayBadge.jsx", "jsx-function", "src/App.jsx"),
    ("tickets", "src/components/FareTag.vue", "single-file-flat", "src/App.vue"),
)
# Trials of each user, and of each state of an application.
FEW = Effort(budget=20.0, seed=1, most=8)


@dataclass(frozen=True)
class Walk:
    """One component from survey to retirement.

    `order` is its place among all `components`, `users` are the verdicts on its users by name, `half_way`
    and `end` those on the application. `switched` is the number of files that the switch changed, `lines`
    are those of old and new.
    """

    application: str
    component: str
    order: int
    components: int
    reason: str
    verdict: str
    users: dict[str, str]
    half_way: str
    end: str
    switched: int
    lines: tuple[int, int]

    @property
    def is_same(self) -> bool:
        """Whether every verdict of the walk is `same`."""
        verdicts = {self.verdict, self.half_way, self.end, *self.users.values()}
        return verdicts == {"same"}


def walks(folder: Path, bench: Bench, *, whole: bool) -> Iterator[Walk]:
    """Walk each component in the applications that were copied into `folder`, or the first one alone."""
    for application, component, target, top in WALKS if whole else WALKS[:1]:
        root = (folder / APPLICATIONS / application).resolve()
        yield _walked(bench, root, root / component, target, top)


def _walked(bench: Bench, root: Path, old: Path, target: str, top: str) -> Walk:
    rows = survey(index_of(root))
    row = next(row for row in rows if row.found.key.file == old.as_posix())
    aliases = tuple(index_of(root).settings.aliases.items())
    made = carry_file(Request(old, str(old), target, aliases=aliases))[0].files[0]
    new = old.with_name(Path(made.path).name)
    write_new(new, made.text.encode())
    before, after, interface = pair_of(old, new)
    verdict = verified(bench, (before, after), interface, Trials(None), FEW).verdict
    with working_on(root):
        index = index_of(root)
        pair = Pair.of(old, new)
        plan = switch(index, [pair])
        users = verify_users(bench, root, users_of(index, [pair]), plan.files, FEW)
        change(root, plan.data())
        half_way = _application(bench, root, top)
        gone = retire(index_of(root), pair)
        change(root, gone.data())
        end = _application(bench, root, top)
    return Walk(
        root.name,
        row.name,
        row.order,
        len(rows),
        row.reason,
        verdict,
        {one.file.stem: one.verdict for one in users},
        half_way,
        end,
        len(plan.files),
        lines_of(pair, gone),
    )


def _application(bench: Bench, root: Path, top: str) -> str:
    """The verdict on an application as it is now against the one the company had."""
    old, new = COMPANY / APPLICATIONS / root.name / top, root / top
    before, after, _ = sides_of(old, old.read_text("utf-8"), new, new.read_text("utf-8"))
    after = replace(after, place=new, beside=False)
    return verified(bench, (before, after), None, Trials(None), FEW).verdict
