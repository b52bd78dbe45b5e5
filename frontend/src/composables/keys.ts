// Every key of the application, in one table, which the "?" dialog shows. No key works inside a
// text field.

import { useEventListener } from '@vueuse/core'
import { useRoute } from 'vue-router'

import { useBench, type Step } from '../stores/bench'
import { useStage } from '../stores/stage'

export interface Key {
  keys: string
  does: string
  where: 'bench' | 'everywhere'
}

const STEPS: Step[] = ['crop', 'border', 'export']

export const KEYS: Key[] = [
  { keys: '1 2 3', does: 'Open or close Crop, Border, Export', where: 'bench' },
  { keys: 'Arrows', does: 'Nudge the window by 1 photo pixel (Crop open)', where: 'bench' },
  { keys: 'Shift + arrows', does: 'Nudge by 10', where: 'bench' },
  { keys: 'Escape', does: 'Cancel the drag or the typing, else close the step', where: 'bench' },
  { keys: 'Ctrl + Z', does: 'Undo', where: 'bench' },
  { keys: 'Ctrl + Shift + Z', does: 'Redo', where: 'bench' },
  { keys: 'Space + drag', does: 'Move the view', where: 'bench' },
  { keys: 'Wheel, + and −', does: 'Zoom the view', where: 'bench' },
  { keys: 'W', does: 'See the whole picture', where: 'bench' },
  { keys: 'P', does: 'See single pixels (100 %)', where: 'bench' },
  { keys: 'E', does: 'See the next corner close', where: 'bench' },
  { keys: 'O', does: 'Before, only cropped, and back', where: 'bench' },
  { keys: 'M', does: 'Margin guide on or off', where: 'bench' },
  { keys: 'Ctrl + V', does: 'Start a finish from a pasted picture', where: 'everywhere' },
  { keys: '?', does: 'This table', where: 'everywhere' },
]

const ARROWS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
}

export function useKeys(actions: { showKeys: () => void }): void {
  const route = useRoute()
  const bench = useBench()
  const stage = useStage()

  function onBench(event: KeyboardEvent): boolean {
    const nudge = ARROWS[event.key]
    const step = STEPS[Number(event.key) - 1]
    if (event.key === 'Escape') void escape()
    else if (nudge && bench.openStep === 'crop') nudgeWindow(nudge, event.shiftKey)
    else if (step) bench.toggleStep(step)
    else if ('+='.includes(event.key)) stage.zoomBy(1.25)
    else if ('-−'.includes(event.key)) stage.zoomBy(0.8)
    else if (event.key === 'w') stage.fit()
    else if (event.key === 'p') stage.actualPixels()
    else if (event.key === 'e') stage.nextEdge()
    else if (event.key === 'o') stage.before = !stage.before
    else if (event.key === 'm') stage.margin = !stage.margin
    else return false
    return true
  }

  async function escape(): Promise<void> {
    if (bench.dragging) await bench.cancelDrag()
    else bench.openStep = null
  }

  function nudgeWindow([x, y]: [number, number], far: boolean): void {
    const by = far ? 10 : 1
    void bench.edit(
      { kind: 'drag_window', grip: stage.focusedGrip, dx: x * by, dy: y * by },
      'after a pause',
    )
  }

  function withControl(event: KeyboardEvent): boolean {
    const key = event.key.toLowerCase()
    if (key === 'z') void (event.shiftKey ? bench.redo() : bench.undo())
    else if (key === 'y') void bench.redo()
    else return false
    return true
  }

  useEventListener(window, 'keydown', (event: KeyboardEvent) => {
    if (isTyping(event.target) || event.altKey) return
    const benchOpen = route.name === 'bench' && !!bench.draft && !isInDialog(event.target)
    let done = false
    if (event.ctrlKey || event.metaKey) done = benchOpen && withControl(event)
    else if (event.key === '?') done = (actions.showKeys(), true)
    else if (benchOpen) done = onBench(event)
    if (done) event.preventDefault()
  })
}

const TEXT_INPUTS = 'input:not([type=checkbox]):not([type=radio]):not([type=range]), textarea, select'

function isTyping(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false
  // A slider's handle takes the arrows for itself.
  return target.isContentEditable || target.matches(`${TEXT_INPUTS}, [role=slider]`)
}

function isInDialog(target: EventTarget | null): boolean {
  return target instanceof Element && target.closest('[role=dialog]') !== null
}
