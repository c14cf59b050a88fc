"""The lifecycle hooks of both versions."""

from __future__ import annotations

from clean_carry.component.moments import MomentName

# Hooks of both versions of the runtime, by hook.
HOOKS: dict[str, MomentName] = {
    "created": "made",
    "beforeMount": "starting",
    "mounted": "displayed",
    "beforeUpdate": "before update",
    "updated": "updated",
    "activated": "shown again",
    "deactivated": "hidden",
    "beforeDestroy": "before removal",
    "beforeUnmount": "before removal",
    "destroyed": "removed",
    "unmounted": "removed",
    "errorCaptured": "failed",
}
# Hooks of the router's own, which the instance runs too.
ROUTE_HOOKS: dict[str, MomentName] = {
    "beforeRouteLeave": "leaving route",
    "beforeRouteUpdate": "route changing",
}
