// Every key of the application: what it does, and what the "?" dialog says of it. The first entry
// that takes a key press carries it out.

import { useBench } from '../stores/bench'
import { useCutOut } from '../stores/cutOut'
import { useDocket } from '../stores/docket'
import { useSelection } from '../stores/selection'
import { useSpots } from '../stores/spots'
import { useStage } from '../stores/stage'
import { arrowWay, digitOf, isArrow, isRemoving, on, withControl, writtenBy, type Press } from './keyNames'
import { usePieceEdits } from './pieceEdits'

export interface Key {
  keys: string
  does: string
  /** On the bench, with no dialog open, unless it says otherwise. */
  everywhere?: boolean
  /** Whether a key press is meant; without it the entry only says what the pointer or browser does. */
  takes?: Press
  /** Whether the key does anything now. */
  when?: () => boolean
  run?: (event: KeyboardEvent) => void
}

export function useKeyTable(showKeys: () => void): Key[] {
  const bench = useBench()
  const cutOut = useCutOut()
  const spots = useSpots()
  const docket = useDocket()
  const stage = useStage()
  const selection = useSelection()
  const pieces = usePieceEdits()

  const cropOpen = () => bench.openStep === 'crop'
  const piecesChosen = () => bench.openStep === 'pieces' && selection.ids.length > 0
  const textChosen = () => piecesChosen() && selection.only?.kind === 'text'
  const canMend = () => cutOut.isOpen && cutOut.isOn
  /** What is put down on the photo by keys too. */
  const brush = () => (spots.isOpen ? spots : cutOut.isOpen && cutOut.brush ? cutOut : null)
  const brushInHand = () => !!brush()
  const markOnSpot = () => bench.openStep === 'watermark' && !!bench.layout?.watermark

  async function escape(): Promise<void> {
    if (bench.dragging) await bench.cancelDrag()
    else if (stage.tool) stage.tool = null
    else if (stage.asSeen) stage.asSeen = false
    else if (cutOut.putAway()) return
    else if (piecesChosen()) selection.clear()
    else bench.openStep = null
  }

  function nudgeWindow(event: KeyboardEvent): void {
    const [dx, dy] = arrowWay(event)!
    const grip = stage.focusedGrip
    void bench.edit({ kind: 'drag_window', grip, dx, dy, snap: 0 }, 'after a pause')
  }

  function nudgeWatermark(event: KeyboardEvent): void {
    const [dx, dy] = arrowWay(event)!
    const only_this_size = bench.onlyThisSize
    void bench.edit({ kind: 'drag_watermark', dx, dy, snap: 0, only_this_size }, 'after a pause')
  }

  function nextSize(by: 1 | -1): void {
    const ids = bench.document!.sizes.map(({ id }) => id)
    const place = (ids.indexOf(bench.sizeId) + by + ids.length) % ids.length
    void bench.workOn(ids[place]!)
  }

  function turnQuarter(way: 'left' | 'right'): void {
    void bench.edit({ kind: 'turn_quarter', way, only_this_size: bench.onlyThisSize })
  }

  return [
    {
      keys: 'Escape',
      does: 'Cancel what you are doing, or close the step',
      takes: on('Escape'),
      run: () => void escape(),
    },
    {
      keys: 'Arrows',
      does: 'Nudge the chosen pieces by 1 pixel (Text & badges open)',
      takes: isArrow,
      when: piecesChosen,
      run: (event) => pieces.nudge(...arrowWay(event)!),
    },
    {
      keys: 'Arrows',
      does: 'Nudge the window by 1 photo pixel (Crop open)',
      takes: isArrow,
      when: cropOpen,
      run: nudgeWindow,
    },
    {
      keys: 'Arrows',
      does: 'Nudge a watermark that is on one spot (Watermark open)',
      takes: isArrow,
      when: markOnSpot,
      run: nudgeWatermark,
    },
    {
      keys: 'Arrows',
      does: 'Move the brush over the picture (brush chosen)',
      takes: isArrow,
      when: brushInHand,
      run: (event) => brush()!.moveCross(...arrowWay(event)!),
    },
    { keys: 'Enter', does: 'Paint at that place', takes: on('Enter'), when: brushInHand, run: () => brush()!.dab() },
    {
      keys: 'B',
      does: 'Draw a box around the subject (Cut-out open)',
      takes: on('b'),
      when: () => cutOut.isOpen,
      run: () => cutOut.drawBox('one'),
    },
    { keys: 'K', does: 'Brush: keep (Cut-out open)', takes: on('k'), when: canMend, run: () => cutOut.take('keep') },
    { keys: 'X', does: 'Brush: leave out', takes: on('x'), when: canMend, run: () => cutOut.take('leave_out') },
    { keys: 'H', does: 'Brush: soft edge', takes: on('h'), when: canMend, run: () => cutOut.take('soft_edge') },
    { keys: 'Comma', does: 'Smaller brush (or Alt + wheel)', takes: on(','), when: brushInHand, run: () => brush()!.smaller() },
    { keys: 'Full stop', does: 'Larger brush', takes: on('.'), when: brushInHand, run: () => brush()!.larger() },
    { keys: 'Shift + arrows', does: 'Nudge by 10' },
    { keys: 'Delete', does: 'Remove the chosen pieces', takes: isRemoving, when: piecesChosen, run: pieces.remove },
    {
      keys: 'Enter, or just typing',
      does: 'Write in the chosen text',
      takes: (event) => writtenBy(event) !== null,
      when: textChosen,
      run: (event) => selection.write(selection.only!.id, { letter: writtenBy(event)! }),
    },
    { keys: 'Ctrl + C, V', does: 'Copy and paste pieces, in another finish too' },
    {
      keys: 'Ctrl + D',
      does: 'Duplicate the chosen pieces',
      takes: withControl('d'),
      when: piecesChosen,
      run: pieces.duplicate,
    },
    {
      keys: '1 to 9',
      does: 'Open or close a step of the docket',
      takes: (event) => digitOf(event) > 0 && digitOf(event) <= docket.steps.length,
      run: (event) => bench.toggleStep(docket.steps[digitOf(event) - 1]!.key),
    },
    {
      keys: 'T, Shift + T',
      does: 'Turn by a quarter, right or left (Crop open)',
      takes: on('t', 'T'),
      when: cropOpen,
      run: (event) => turnQuarter(event.shiftKey ? 'left' : 'right'),
    },
    {
      keys: 'L',
      does: 'Draw a level line (Crop open)',
      takes: on('l'),
      when: cropOpen,
      run: () => stage.take('level line'),
    },
    {
      keys: 'F',
      does: 'Mark the focus (Crop open)',
      takes: on('f'),
      when: cropOpen,
      run: () => stage.take('focus'),
    },
    { keys: 'G', does: 'Next guides in the window (Crop open)', takes: on('g'), when: cropOpen, run: stage.nextGuides },
    { keys: 'Ctrl held', does: 'A drag does not snap' },
    { keys: 'Alt + wheel', does: 'Show more or less of the photo' },
    {
      keys: 'N, Shift + N',
      does: 'Work on the next size, or the one before',
      takes: on('n', 'N'),
      run: (event) => nextSize(event.shiftKey ? -1 : 1),
    },
    { keys: 'Ctrl + Z', does: 'Undo', takes: withControl('z'), run: () => void bench.undo() },
    { keys: 'Ctrl + Shift + Z, Ctrl + Y', does: 'Redo', takes: withControl('Z', 'y'), run: () => void bench.redo() },
    { keys: 'Space + drag', does: 'Move the view' },
    { keys: 'Wheel, +', does: 'Zoom in', takes: on('+', '='), run: () => stage.zoomBy(1.25) },
    { keys: 'Wheel, −', does: 'Zoom out', takes: on('-', '−'), run: () => stage.zoomBy(0.8) },
    { keys: 'W', does: 'Fit the whole picture', takes: on('w'), run: stage.fit },
    { keys: 'P', does: 'Zoom to 100 %', takes: on('p'), run: stage.actualPixels },
    { keys: 'E', does: 'Zoom in on the next corner', takes: on('e'), run: stage.nextEdge },
    {
      keys: 'O',
      does: 'Show the photo before editing, and back',
      takes: on('o'),
      run: () => (stage.before = !stage.before),
    },
    {
      keys: 'S',
      does: 'Compare before and after, and back',
      takes: on('s'),
      run: () => (stage.isSplit = !stage.isSplit),
    },
    { keys: 'A', does: 'Show every size as people see it, and back', takes: on('a'), run: () => (stage.asSeen = !stage.asSeen) },
    {
      keys: 'C',
      does: 'Mark clipped shadows and highlights, and back',
      takes: on('c'),
      run: () => (stage.clipping = !stage.clipping),
    },
    { keys: 'M', does: 'Margin guide on or off', takes: on('m'), run: () => (stage.margin = !stage.margin) },
    { keys: 'Ctrl + V', does: 'Start a finish from a picture on the clipboard' },
    { keys: '?', does: 'This list of keys', everywhere: true, takes: on('?'), run: showKeys },
  ]
}
