"""How elements stand in a page without a stylesheet (HTML §15, rendering)."""

from __future__ import annotations

# Elements whose default display is not inline: white space beside them does not show.
BLOCKS = frozenset(
    (
        "address article aside blockquote body center dd details dialog dir div dl dt fieldset "
        "figcaption figure footer form h1 h2 h3 h4 h5 h6 header hgroup hr html legend li main "
        "menu nav ol optgroup option p search section summary ul table caption colgroup col "
        "thead tbody tfoot tr td th"
    ).split()
)
# The white space of HTML (Infra, "ASCII whitespace"): a space that does not break is none.
SPACE = " \t\n\f\r"
# Elements that show white space as it is written.
KEEP_SPACE = frozenset({"pre", "textarea", "listing", "plaintext"})
