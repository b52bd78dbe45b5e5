// Names of keys: arrows that nudge, keys that remove, keys that write; and where keys are text.

const isApple = /Mac|iPhone|iPad/.test(navigator.userAgent)

/** Keys as this computer's keyboard writes them: ⌘ for Ctrl, ⌥ for Alt on an Apple one. */
export function shownKeys(keys: string): string {
  return isApple ? keys.replaceAll('Ctrl', '⌘').replaceAll('Alt', '⌥').replaceAll('Shift', '⇧') : keys
}

/** Whether a key press is one that is meant. */
export type Press = (event: KeyboardEvent) => boolean

/** One of these keys, without Ctrl. */
export function on(...keys: string[]): Press {
  return (event) => !hasControl(event) && keys.includes(event.key)
}

/** One of these keys with Ctrl; a capital is one with Shift. */
export function withControl(...keys: string[]): Press {
  return (event) => {
    const letter = event.key.toLowerCase()
    return hasControl(event) && keys.includes(event.shiftKey ? letter.toUpperCase() : letter)
  }
}

function hasControl(event: KeyboardEvent): boolean {
  return event.ctrlKey || event.metaKey
}

/** The digit that a key writes; 0 for any other. */
export function digitOf(event: KeyboardEvent): number {
  return !hasControl(event) && /^[1-9]$/.test(event.key) ? Number(event.key) : 0
}

export function isSpace(event: KeyboardEvent): boolean {
  return event.key === ' '
}

export function isArrow(event: KeyboardEvent): boolean {
  return !hasControl(event) && arrowWay(event) !== null
}

/** The way an arrow key points, ten times as far with Shift; null for any other key. */
export function arrowWay(event: KeyboardEvent): [number, number] | null {
  const way = ARROWS[event.key]
  const far = event.shiftKey ? 10 : 1
  return way ? [way[0] * far, way[1] * far] : null
}

const ARROWS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
}

/** Up or down by so many lines, or to the line's first or last place; null for any other key. */
export type LineStep = -1 | 1 | 'first' | 'last'

export function lineStep(event: KeyboardEvent): LineStep | null {
  return hasControl(event) || event.altKey ? null : (LINE_STEPS[event.key] ?? null)
}

const LINE_STEPS: Record<string, LineStep> = { ArrowUp: -1, ArrowDown: 1, Home: 'first', End: 'last' }

/** Whether a key removes what is chosen. */
export function isRemoving(event: KeyboardEvent): boolean {
  return !hasControl(event) && (event.key === 'Delete' || event.key === 'Backspace')
}

/** The letter that a key writes; empty for Enter, which begins writing too, null for any other. */
export function writtenBy(event: KeyboardEvent): string | null {
  if (hasControl(event)) return null
  if (event.key === 'Enter') return ''
  return event.key.length === 1 ? event.key : null
}

const TEXT_INPUTS = 'input:not([type=checkbox]):not([type=radio]):not([type=range]), textarea, select'

/** Whether a key presses a button that has the focus; pieces on the stage take Enter themselves. */
export function pressesButton(event: KeyboardEvent): boolean {
  if (event.key !== 'Enter' || !(event.target instanceof HTMLElement)) return false
  return event.target.matches('button, a, [role=switch]') && !event.target.closest('.stage')
}

/** Whether a key takes the choice that has the focus. */
export function isChoosing(event: KeyboardEvent): boolean {
  return !hasControl(event) && (event.key === 'Enter' || isSpace(event))
}

/** Whether a key writes a single character. */
export function isCharacter(event: KeyboardEvent): boolean {
  return !hasControl(event) && event.key.length === 1
}

/** Whether a key pressed there belongs to a field. */
export function isTyping(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false
  // A slider's handle takes the arrows for itself.
  return target.isContentEditable || target.matches(`${TEXT_INPUTS}, [role=slider]`)
}
