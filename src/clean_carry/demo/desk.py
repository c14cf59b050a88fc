"""The booking desk as it was and as it became, on one page that needs nothing else."""

from __future__ import annotations

import html
from pathlib import Path

# The page in whose place the new one stands, and what both have.
PAGE = "page.html"
SHARED = ("desk.js",)
NAME = "old-and-new.html"

_STYLE = """
body { margin: 0; padding: 1rem; font: 15px/1.5 system-ui, sans-serif; color: #1c2b33; background: #fbfaf6 }
h3 { margin: 0.8rem 0 0.2rem }
ul { list-style: none; padding: 0; display: flex; flex-wrap: wrap; gap: 0.5rem }
li { border: 1px solid #b9c4c9; border-radius: 6px; padding: 0.4rem 0.6rem; text-align: center }
li.picked { border-color: #0a6c74; background: #e2f1f1 } li.taken { opacity: 0.5 }
button { font: inherit; padding: 0.15rem 0.7rem } small { display: block; color: #5b6a71 }
.notice { border-left: 4px solid #c98a1b; padding: 0.1rem 0.8rem 0.7rem; background: #fdf3df }
.leaving { opacity: 0.4 } .ng-hide { display: none !important } .above { margin-top: 0.8rem }
.told { color: #5b6a71; border-top: 1px solid #dfe5e7; padding-top: 0.6rem }
"""
_OUTER = """
body { margin: 0; font: 15px/1.5 system-ui, sans-serif; color: #1c2b33; background: #eef1f0 }
main { display: grid; grid-template-columns: repeat(auto-fit, minmax(22rem, 1fr)); gap: 1rem;
  padding: 1rem }
h1 { font-size: 1.2rem; margin: 1rem 1rem 0 } h2 { font-size: 1rem; margin: 0 0 0.4rem }
iframe { width: 100%; height: 32rem; border: 1px solid #b9c4c9; border-radius: 8px; background: #fbfaf6 }
"""


def one_page(folder: Path, runtime: Path, scripts: tuple[str, ...]) -> str:
    """The page: two frames, each an application of its own with the scripts and templates it has.

    `folder` is that of the booking desk, once its `scripts` were carried; `runtime` that of the installed
    runtime. A script or template that has no new form is the same on both sides.
    """
    engine = (runtime / "node_modules" / "angular" / "angular.min.js").read_text("utf-8")
    frames = []
    for title, new in (("As directives", False), ("As components", True)):
        body = _read(folder, PAGE, new)
        parts = [f"<style>{_STYLE}</style>", body]
        for template in sorted(folder.glob("*.html")):
            if template.name not in (PAGE, NAME) and not template.name.startswith("page."):
                url = f"{folder.name}/{template.name}"
                text = template.read_text("utf-8")
                parts.append(f'<script type="text/ng-template" id="{url}">{text}</script>')
        texts = [engine, *(_read(folder, name, new) for name in (*SHARED, *scripts))]
        parts += [f"<script>{text}</script>" for text in texts]
        body = f'<body ng-app="gullmoor.desk">{"".join(parts)}</body>'
        frame = html.escape(f'<!doctype html><html lang="en">{body}</html>', quote=True)
        frames.append(
            f'<section><h2>{title}</h2><iframe title="{title}" srcdoc="{frame}"></iframe></section>'
        )
    head = '<meta charset="utf-8"><title>The booking desk, old and new</title>'
    return (
        f'<!doctype html>\n<html lang="en"><head>{head}<style>{_OUTER}</style></head>'
        f"<body><h1>The booking desk, old and new</h1><main>{''.join(frames)}</main></body></html>\n"
    )


def _read(folder: Path, name: str, new: bool) -> str:
    stem, _, ending = name.rpartition(".")
    carried = folder / f"{stem}.component.{ending}"
    return (carried if new and carried.is_file() else folder / name).read_text("utf-8")
