"""How names are spelled in templates and in scripts."""

from __future__ import annotations

from clean_carry.source.javascript.values import is_identifier


def camel(name: str) -> str:
    """`tide-strip` as `tideStrip`."""
    head, *rest = name.split("-")
    return head + "".join(part[:1].upper() + part[1:] for part in rest)


def input_name(name: str) -> str:
    """The name an input is read by: the runtime knows `aria-label` as `ariaLabel`."""
    return camel(name) if is_identifier(camel(name)) else name


def pascal(name: str) -> str:
    """`tide-strip` as `TideStrip`."""
    spelled = camel(name)
    return spelled[:1].upper() + spelled[1:]


# Tags that never mean a component: the elements of HTML (§4, obsolete ones too), of SVG 2 and MathML Core,
# and those of the runtime that stand for whatever is in them or named by them.
ELEMENTS = frozenset(
    (
        "a abbr acronym address applet area article aside audio b base basefont bdi bdo big blink "
        "blockquote body br button canvas caption center cite code col colgroup data datalist dd del "
        "details dfn dialog dir div dl dt em embed fieldset figcaption figure font footer form frame "
        "frameset h1 h2 h3 h4 h5 h6 head header hgroup hr html i iframe img input ins kbd label legend "
        "li link main map mark marquee menu meta meter nav noscript object ol optgroup option output p "
        "param picture pre progress q rp rt ruby s samp script search section select small source span "
        "strike strong style sub summary sup svg table tbody td template textarea tfoot th thead time "
        "title tr track tt u ul var video wbr "
        "animate animateMotion animateTransform circle clipPath defs desc ellipse filter foreignObject "
        "g image line linearGradient marker mask metadata mpath path pattern polygon polyline "
        "radialGradient rect set stop switch symbol text textPath tspan use view "
        "math maction annotation merror mfrac mi mmultiscripts mn mo mover mpadded mphantom mprescripts "
        "mroot mrow ms mspace msqrt mstyle msub msubsup msup mtable mtd mtext mtr munder munderover "
        "semantics component slot"
    ).split()
)
