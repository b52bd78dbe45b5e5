// Every key of the application, in one table, which the "?" dialog shows. No key works inside a
// text field.

import { useEventListener } from '@vueuse/core'
import { useRoute } from 'vue-router'

import { useBench } from '../stores/bench'
import { useDocket } from '../stores/docket'
import { useStage } from '../stores/stage'
import { useSelection } from '../stores/selection'
import { arrowWay, isTyping } from './keyNames'
import { isDialogOpen } from './dialogs'
import { usePieceClipboard } from './pieceClipboard'
import { usePieceKeys } from './pieceKeys'

export interface Key {
  keys: string
  does: string
  where: 'bench' | 'everywhere'
}

export const KEYS: Key[] = [
  { keys: '1 to 9', does: 'Open or close a step of the docket', where: 'bench' },
  { keys: 'Arrows', does: 'Nudge the window by 1 photo pixel (Crop open)', where: 'bench' },
  { keys: 'Arrows', does: 'Nudge the chosen pieces by 1 pixel (Text & badges open)', where: 'bench' },
  { keys: 'Arrows', does: 'Nudge a watermark that is on one spot (Watermark open)', where: 'bench' },
  { keys: 'Shift + arrows', does: 'Nudge by 10', where: 'bench' },
  { keys: 'Enter, or just typing', does: 'Write in the chosen text', where: 'bench' },
  { keys: 'Delete', does: 'Remove the chosen pieces', where: 'bench' },
  { keys: 'Ctrl + C, V, D', does: 'Copy, paste (in another finish too), duplicate pieces', where: 'bench' },
  { keys: 'T, Shift + T', does: 'Turn by a quarter, right or left (Crop open)', where: 'bench' },
  { keys: 'L', does: 'Draw a level line (Crop open)', where: 'bench' },
  { keys: 'F', does: 'Click or draw the focus (Crop open)', where: 'bench' },
  { keys: 'G', does: 'Other guides in the window (Crop open)', where: 'bench' },
  { keys: 'Ctrl held', does: 'A drag does not snap', where: 'bench' },
  { keys: 'Alt + wheel', does: 'Show more or less of the photo', where: 'bench' },
  { keys: 'N, Shift + N', does: 'Work on the next size, or the one before', where: 'bench' },
  { keys: 'Escape', does: 'Cancel the drag, the tool or the typing, else close the step', where: 'bench' },
  { keys: 'Ctrl + Z', does: 'Undo', where: 'bench' },
  { keys: 'Ctrl + Shift + Z', does: 'Redo', where: 'bench' },
  { keys: 'Space + drag', does: 'Move the view', where: 'bench' },
  { keys: 'Wheel, + and −', does: 'Zoom the view', where: 'bench' },
  { keys: 'W', does: 'See the whole picture', where: 'bench' },
  { keys: 'P', does: 'See single pixels (100 %)', where: 'bench' },
  { keys: 'E', does: 'See the next corner close', where: 'bench' },
  { keys: 'O', does: 'Before, only cropped, and back', where: 'bench' },
  { keys: 'S', does: 'Before and after beside each other, and back', where: 'bench' },
  { keys: 'C', does: 'Mark what is clipped, and back', where: 'bench' },
  { keys: 'M', does: 'Margin guide on or off', where: 'bench' },
  { keys: 'Ctrl + V', does: 'Start a finish from a pasted picture', where: 'everywhere' },
  { keys: '?', does: 'This table', where: 'everywhere' },
]

export function useKeys(actions: { showKeys: () => void }): void {
  const route = useRoute()
  const bench = useBench()
  const docket = useDocket()
  const stage = useStage()
  const selection = useSelection()
  const pieces = usePieceKeys()
  usePieceClipboard()

  function onBench(event: KeyboardEvent): boolean {
    const nudge = arrowWay(event)
    const step = docket.steps[Number(event.key) - 1]?.key
    if (event.key === 'Escape') void escape()
    else if (bench.openStep === 'pieces' && pieces.onKey(event)) return true
    else if (nudge && bench.openStep === 'crop') nudgeWindow(nudge)
    else if (nudge && bench.openStep === 'watermark' && bench.layout?.watermark) nudgeWatermark(nudge)
    else if (step) bench.toggleStep(step)
    else if ('+='.includes(event.key)) stage.zoomBy(1.25)
    else if ('-−'.includes(event.key)) stage.zoomBy(0.8)
    else if (event.key === 'w') stage.fit()
    else if (event.key === 'p') stage.actualPixels()
    else if (event.key === 'e') stage.nextEdge()
    else if (event.key === 'o') stage.before = !stage.before
    else if (event.key === 's') stage.isSplit = !stage.isSplit
    else if (event.key === 'c') stage.clipping = !stage.clipping
    else if (event.key === 'm') stage.margin = !stage.margin
    else if (event.key === 'n') nextSize(1)
    else if (event.key === 'N') nextSize(-1)
    else if (event.key === 'g' && bench.openStep === 'crop') stage.nextGuides()
    else if (event.key === 'l' && bench.openStep === 'crop') stage.take('level line')
    else if (event.key === 'f' && bench.openStep === 'crop') stage.take('focus')
    else if (event.key === 't' && bench.openStep === 'crop') turnQuarter('right')
    else if (event.key === 'T' && bench.openStep === 'crop') turnQuarter('left')
    else return false
    return true
  }

  async function escape(): Promise<void> {
    if (bench.dragging) await bench.cancelDrag()
    else if (stage.tool) stage.tool = null
    else if (bench.openStep === 'pieces' && selection.ids.length) selection.clear()
    else bench.openStep = null
  }

  function nudgeWindow([dx, dy]: [number, number]): void {
    const grip = stage.focusedGrip
    void bench.edit({ kind: 'drag_window', grip, dx, dy, snap: 0 }, 'after a pause')
  }

  function nudgeWatermark([dx, dy]: [number, number]): void {
    const only_this_size = bench.onlyThisSize
    void bench.edit({ kind: 'drag_watermark', dx, dy, snap: 0, only_this_size }, 'after a pause')
  }

  /** Work on the next size, or the one before. */
  function nextSize(by: 1 | -1): void {
    const ids = bench.document!.sizes.map(({ id }) => id)
    const place = (ids.indexOf(bench.sizeId) + by + ids.length) % ids.length
    void bench.workOn(ids[place]!)
  }

  function turnQuarter(way: 'left' | 'right'): void {
    void bench.edit({ kind: 'turn_quarter', way, only_this_size: bench.onlyThisSize })
  }

  function withControl(event: KeyboardEvent): boolean {
    const key = event.key.toLowerCase()
    if (key === 'z') void (event.shiftKey ? bench.redo() : bench.undo())
    else if (key === 'y') void bench.redo()
    else return bench.openStep === 'pieces' && pieces.onControlKey(key)
    return true
  }

  useEventListener(window, 'keydown', (event: KeyboardEvent) => {
    if (isTyping(event.target) || event.altKey) return
    const benchOpen = route.name === 'bench' && !!bench.draft && !isDialogOpen()
    let done = false
    if (event.ctrlKey || event.metaKey) done = benchOpen && withControl(event)
    else if (event.key === '?') done = (actions.showKeys(), true)
    else if (benchOpen) done = onBench(event)
    if (done) event.preventDefault()
  })
}
