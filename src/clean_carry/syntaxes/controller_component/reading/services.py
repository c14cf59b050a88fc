"""Services of the old framework that pages have by themselves, and how code asks for those.

The source is the framework's reference: `$timeout`, `$interval`, `$http`, `$log`, `$q`, `$window`.
"""

from __future__ import annotations

from clean_carry.source.javascript.tree import Node
from clean_carry.syntaxes.single_file.stands_for import NotAFile

# By service: the function that it is, and those of its members.
_CALLED = {"$timeout": "setTimeout", "$interval": "setInterval"}
_MEMBERS = {
    "$timeout": {"cancel": "clearTimeout"},
    "$interval": {"cancel": "clearInterval"},
    "$q": {
        "resolve": "Promise.resolve", "when": "Promise.resolve", "reject": "Promise.reject",
        "all": "Promise.all", "race": "Promise.race",
    },
    "$log": {one: f"console.{one}" for one in ("log", "info", "warn", "error", "debug")},
}  # fmt: skip
_WITHOUT_BODY = frozenset({"get", "delete", "head"})
_WITH_BODY = frozenset({"post", "put", "patch"})
KNOWN = frozenset({*_CALLED, *_MEMBERS, "$http", "$window", "$scope"})

REQUEST = """// A request as the old service made it: its answer holds data, and fails with its status.
const isJson = /^(?:\\[[^]*\\]|\\{(?!\\{)[^]*\\})\\s*$/;

async function request(method, url, data) {
  const body = data === undefined ? {} : { body: JSON.stringify(data) };
  const reply = await fetch(url, { method, ...body });
  const text = await reply.text();
  const answer = { data: isJson.test(text) ? JSON.parse(text) : text, status: reply.status };
  if (!reply.ok) {
    throw answer;
  }
  return answer;
}
"""


def asked(service: str, place: Node) -> tuple[int, int, str, bool]:
    """The edit of a place that names a service: start, end, new text, and whether it makes a request.
    Raises `NotAFile` for uses with no counterpart."""
    above = place.parent
    if service == "$window":
        return place.start, place.end, "window", False
    if above is not None and above.type == "member_expression" and above.children[0] is place:
        return _member(service, above)
    if service in _CALLED and above is not None and above.type == "call_expression":
        given = above.child("arguments")
        followed = above.parent is not None and above.parent.type == "member_expression"
        if given is not None and len(given.named_children) <= 2 and not followed:
            return place.start, place.end, _CALLED[service], False
    raise NotAFile("controller-service", service, place.start)


def _member(service: str, member: Node) -> tuple[int, int, str, bool]:
    part, call = member.child("property"), member.parent
    name = part.text if part is not None else ""
    own = _MEMBERS.get(service, {})
    if name in own:
        return member.start, member.end, own[name], False
    given = call.child("arguments") if call is not None and call.type == "call_expression" else None
    if service == "$http" and given is not None and given.named_children:
        most = 1 if name in _WITHOUT_BODY else 2
        if name in _WITHOUT_BODY | _WITH_BODY and len(given.named_children) <= most:
            method = name.upper()
            return member.start, given.start + 1, f"request('{method}', ", True
    raise NotAFile("controller-service", f"{service}.{name}", member.start)
