"""A command group that imports a command when it is called, so that each starts fast."""

from __future__ import annotations

from pkgutil import resolve_name
from typing import Any

import click

from clean_carry.component.errors import closest


class LazyGroup(click.Group):
    """`commands_in` maps a command's name to `module:attribute`."""

    def __init__(self, *arguments: Any, commands_in: dict[str, str], **keywords: Any) -> None:
        super().__init__(*arguments, **keywords)
        self._commands_in = commands_in

    def list_commands(self, ctx: click.Context) -> list[str]:
        """The names, in the order of a user's work."""
        return list(self._commands_in)

    def resolve_command(
        self, ctx: click.Context, args: list[str]
    ) -> tuple[str | None, click.Command | None, list[str]]:
        """The command the arguments begin with; fails with the one that may be meant."""
        near = closest(args[0], self._commands_in)
        if near and args[0] not in self._commands_in:
            ctx.fail(f"there is no command “{args[0]}”. {near.strip()}")
        return super().resolve_command(ctx, args)

    def get_command(self, ctx: click.Context, cmd_name: str) -> click.Command | None:
        """The command of this name, imported now."""
        place = self._commands_in.get(cmd_name)
        if place is None:
            return None
        command = resolve_name(place)
        assert isinstance(command, click.Command)
        return command
