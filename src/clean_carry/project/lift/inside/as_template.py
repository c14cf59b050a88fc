"""A component lifted out of a template, in the syntax of its file."""

from __future__ import annotations

from typing import Any

from clean_carry.crossing.lift.align import Part, Place
from clean_carry.crossing.lift.props import Plan
from clean_carry.project.lift.inside.parts import shown_part
from clean_carry.project.lift.inside.spot import SpotEdits
from clean_carry.project.lift.literals import indented, name_of
from clean_carry.project.lift.single_file import Template, declared, quoted
from clean_carry.source.html.page import PageNode
from clean_carry.source.text import SourceText


class InnerTemplate(Template):
    """Composes the template of a component from a stretch of another one."""

    def edits_of(self, source: SourceText) -> SpotEdits:  # type: ignore[override]
        """See `Composed`."""
        return SpotEdits(source)

    def optional(self, child: Part, place: Place, markup: Any, node: PageNode) -> str:
        """See `Composed`."""
        return self.text(child, place, f'v-if="{quoted(self.plan.conditions[id(child)])}"')

    def shown(self, child: Part, place: Place) -> str | None:
        """See `Composed`."""
        block = child.blocks.get(place) or child.base
        if not block.source.slice(block.node.start, block.node.end).startswith("{{"):
            # White space at either end is a matter of the compiler, as in a template made of a page.
            return super().shown(child, place)

        def braces(code: str) -> str:
            return f"{{{{ {code} }}}}"

        return shown_part(
            self.plan, child, place, braces, lambda flag, text: f"{flag} ? {text} : ''"
        )


def template_component(
    plan: Plan,
    part: Part,
    imports: str,
    styles: str,
    registered: list[str],
    *,
    flat: bool,
    lang: str,
) -> str:
    """The text of a single file: with statements where it is `flat`, else with an object of options, which
    registers the components in its markup."""
    inner = indented(InnerTemplate(plan).text(part), "  ")
    mark = f' lang="{lang}"' if lang else ""
    rows = [f"{name_of(one.name)}: {declared(one)},\n" for one in plan.props]
    script = imports
    if flat and rows:
        script += (
            "\n" if imports else ""
        ) + f"defineProps({{\n{''.join(f'  {r}' for r in rows)}}});\n"
    elif not flat:
        given = f"  components: {{ {', '.join(registered)} }},\n" if registered else ""
        given += f"  props: {{\n{''.join(f'    {r}' for r in rows)}  }},\n" if rows else ""
        script += ("\n" if imports else "") + f"export default {{\n{given}}};\n"
    setup = " setup" if flat else ""
    head = f"<script{setup}{mark}>\n{script}</script>\n" if script else ""
    template = f"<template>\n{inner}\n</template>\n"
    tail = f"\n<style scoped>\n{styles}\n</style>\n" if styles else ""
    order = [head, template] if flat else [template, head]
    return "\n".join(one for one in order if one) + tail
