// A choice is tried out while the pointer rests on it or the keyboard's focus is on it.

/** Handlers for `v-on`, told whether it is looked at. */
export function lookingAt(tell: (on: boolean) => void) {
  const [on, off] = [() => tell(true), () => tell(false)]
  return { pointerenter: on, pointerleave: off, focus: on, blur: off }
}
