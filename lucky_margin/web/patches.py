"""What differs between two JSON values, as a JSON Patch (RFC 6902).

General libraries for this look for moved list entries, which takes longer than all else that a
pointer's move needs; between two states of one draft entries stay where they are.
"""

from typing import Any, Literal

from lucky_margin.core.document import Value


class PatchOperation(Value):
    """One operation; ``path`` is a JSON Pointer (RFC 6901)."""

    op: Literal["add", "remove", "replace"]
    path: str
    value: Any = None


def patch(old: Any, new: Any, path: str = "") -> list[PatchOperation]:
    """The operations that make ``new`` of ``old``, to be carried out in this order. Values that
    compare equal, such as 1 and 1.0, are the same."""
    if old == new:
        return []
    if isinstance(old, dict) and isinstance(new, dict):
        return _of_objects(old, new, path)
    if isinstance(old, list) and isinstance(new, list):
        return _of_lists(old, new, path)
    return [PatchOperation(op="replace", path=path, value=new)]


def _of_objects(old: dict[str, Any], new: dict[str, Any], path: str) -> list[PatchOperation]:
    found: list[PatchOperation] = []
    for key in old.keys() - new.keys():
        found.append(PatchOperation(op="remove", path=f"{path}/{_escaped(key)}"))
    for key, value in new.items():
        inside = f"{path}/{_escaped(key)}"
        if key in old:
            found += patch(old[key], value, inside)
        else:
            found.append(PatchOperation(op="add", path=inside, value=value))
    return found


def _of_lists(old: list[Any], new: list[Any], path: str) -> list[PatchOperation]:
    found: list[PatchOperation] = []
    for index, (one, other) in enumerate(zip(old, new, strict=False)):
        found += patch(one, other, f"{path}/{index}")
    for index in range(len(old) - 1, len(new) - 1, -1):  # from the end, so that places stay right
        found.append(PatchOperation(op="remove", path=f"{path}/{index}"))
    for value in new[len(old) :]:
        found.append(PatchOperation(op="add", path=f"{path}/-", value=value))
    return found


def _escaped(key: str) -> str:
    return key.replace("~", "~0").replace("/", "~1")
