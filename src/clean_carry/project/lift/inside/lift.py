"""Lift blocks that repeat in component files into components of the same syntax."""

from __future__ import annotations

from pathlib import Path

from clean_carry.component.errors import InputError
from clean_carry.crossing.lift import block as blocks
from clean_carry.crossing.lift.groups import Group
from clean_carry.project.lift.inside.as_jsx import jsx_component
from clean_carry.project.lift.inside.as_template import template_component
from clean_carry.project.lift.inside.component_file import JSX, ComponentFile, drawn_names
from clean_carry.project.lift.inside.uses import FileUses
from clean_carry.project.lift.lift import LiftedPages, Wishes, chosen_groups, components
from clean_carry.project.lift.single_file import Lifted
from clean_carry.syntaxes.single_file.stands_for import NotAFile


def lift_inside(
    paths: list[Path], target: str, wishes: Wishes, folder: Path | None = None
) -> LiftedPages:
    """Lift the blocks that repeat in some component files. New files stand in `folder`, else beside the
    first file.

    Raises `CarryError` for files that cannot be read, and for those in another syntax than `target`.
    """
    blocks.forget()
    files = [ComponentFile.read(path) for path in paths]
    for one in files:
        if one.syntax != target:
            raise InputError(
                f"holds {one.syntax}, and blocks of components are lifted within their syntax",
                advice=f"Use --to {one.syntax}, and carry the files afterwards",
                file=str(one.path),
            )
    into = folder or files[0].path.parent
    taken = {name for one in files for name in one.names.module.names}
    taken |= {path.stem for path in into.glob("*") if path.suffix == files[0].path.suffix}
    groups = chosen_groups(files, wishes)
    lifted = components(groups, wishes, taken)
    uses = {one.path: FileUses(one, into) for one in files}
    made: dict[Path, str] = {}
    for group in groups:
        component = lifted.get(id(group))
        if component is None:
            continue
        owners = [one for one in files if any(c.source is one.source for c in group.copies)]
        text, reason = _component(component, group, owners, into)
        if reason:
            group.reason = reason
            del lifted[id(group)]
            continue
        made[into / f"{component.name}{owners[0].path.suffix}"] = text
        for one in owners:
            uses[one.path].put(component, group)
    entries: dict[Path, Path] = {}
    for one in files:
        if uses[one.path].used:
            made[one.path] = uses[one.path].text()
            entries[one.path] = one.path
    return LiftedPages(groups, lifted, made, entries, [], [])


def _component(
    made: Lifted, group: Group, owners: list[ComponentFile], into: Path
) -> tuple[str, str]:
    """The text of a component's file, or why there is none."""
    first = owners[0]
    if len(owners) > 1 and any(one.rules for one in owners):
        return "", "its copies stand under the scoped styles of several files"
    styles, reason = first.scoped_styles(group.copies)
    if reason:
        return "", reason
    try:
        if first.path.suffix in JSX:
            typed = first.path.suffix == ".tsx"
            text = jsx_component(made.name, made.plan, made.part, "", first.style, typed=typed)
            needed = drawn_names(text) - {made.name}
            imports, missing = first.imports(needed, into)
            text = jsx_component(made.name, made.plan, made.part, imports, first.style, typed=typed)
        else:
            flat = first.syntax == "single-file-flat"
            needed = first.template_needs(made.part)
            imports, missing = first.imports(needed, into)
            registered = [] if flat else sorted(needed)
            text = template_component(
                made.plan, made.part, imports, styles, registered, flat=flat, lang=first.lang
            )
    except NotAFile as failed:
        return "", f"{failed.detail} cannot be written there"
    if missing:
        return "", f"it uses `{sorted(missing)[0]}`, which is declared beside it"
    return text, ""
