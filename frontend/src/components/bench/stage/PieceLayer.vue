<script setup lang="ts">
// The pieces as they can be taken hold of: chosen, moved, scaled, turned, written in.

import { computed, ref } from 'vue'

import type { Edit, PieceLaid, TextPiece } from '../../../api/types'
import { followPointer } from '../../../composables/drags'
import { snapOf, useEditDrags } from '../../../composables/editDrags'
import { useOutputSpace } from '../../../composables/outputSpace'
import { usePieceEdits } from '../../../composables/pieceEdits'
import { pieceName } from '../../../composables/pieceNames'
import { useBench } from '../../../stores/bench'
import { useSelection } from '../../../stores/selection'
import PieceCorners from './PieceCorners.vue'
import SnapLines from './SnapLines.vue'
import StageKnob from './StageKnob.vue'
import WritingLayer from './WritingLayer.vue'

const props = defineProps<{
  /** The picture's top left corner on the stage, in CSS pixels. */
  origin: { x: number; y: number }
}>()

type Grip = Extract<Edit, { kind: 'scale_piece' }>['grip']

/** How far the knob that turns lies above a piece, in CSS pixels, and the steps with Shift held. */
const TURN_ROOM = 30
const TURN_STEP = 15
const CORNERS: Record<string, [number, number]> = { nw: [-1, -1], ne: [1, -1], se: [1, 1], sw: [-1, 1] }
const SIDES: Record<string, [number, number]> = { n: [0, -1], e: [1, 0], s: [0, 1], w: [-1, 0] }
const ENDS = ['tail', 'tip'] as const
const NAMES: Record<string, string> = {
  nw: 'upper left corner',
  ne: 'upper right corner',
  se: 'lower right corner',
  sw: 'lower left corner',
  n: 'upper side',
  e: 'right side',
  s: 'lower side',
  w: 'left side',
}

const bench = useBench()
const selection = useSelection()
const { placed, at } = useOutputSpace(() => props.origin)
const { follow } = useEditDrags()
const { pieces, drag } = usePieceEdits()
/** The frame that is drawn to choose several, in CSS pixels of the layer. */
const frame = ref<{ x0: number; y0: number; x1: number; y1: number } | null>(null)

const laid = computed(() => bench.shownLayout!.pieces)
const pieceOf = (id: string) => pieces.value.find((one) => one.id === id)
const only = computed(() => laid.value.find(({ id }) => id === selection.only?.id) ?? null)
const written = computed(() => {
  const piece = selection.typing ? pieceOf(selection.typing) : null
  const box = laid.value.find(({ id }) => id === selection.typing)
  return piece?.kind === 'text' && box ? { piece: piece as TextPiece, laid: box } : null
})
/** An arrow or line that is held to the photo has its two ends to be dragged by. */
const isDrawnOut = computed(() => {
  const piece = selection.only
  return piece?.kind === 'badge' && !!piece.tip && piece.form !== 'bubble'
})
const grips = computed(() => {
  const kind = selection.only?.kind
  const sides = kind === 'badge' ? ['n', 'e', 's', 'w'] : kind === 'text' ? ['e', 'w'] : []
  return [...sides, ...Object.keys(CORNERS)] as Grip[]
})

function boxOf({ x, y, width, height, angle }: PieceLaid) {
  const { scale } = placed.value
  return {
    ...at(x, y),
    width: `${width * scale}px`,
    height: `${height * scale}px`,
    transform: `translate(-50%, -50%) rotate(${angle}deg)`,
  }
}

/** A point of a piece's own box (-1 to 1 each way), `out` CSS pixels further out. */
function spot(piece: PieceLaid, i: number, j: number, out = 0) {
  const angle = (piece.angle * Math.PI) / 180
  const { scale } = placed.value
  const x = (i * piece.width) / 2
  const y = (j * piece.height) / 2 + (j * out) / scale
  return at(
    piece.x + x * Math.cos(angle) - y * Math.sin(angle),
    piece.y + x * Math.sin(angle) + y * Math.cos(angle),
  )
}

function press(event: PointerEvent, { id }: PieceLaid): void {
  if (event.button !== 0) return
  event.stopPropagation()
  if (event.shiftKey) return selection.toggle(id)
  if (!selection.ids.includes(id)) selection.choose(selection.groupOf(id))
  if (pieceOf(id)?.locked) return
  const { scale } = placed.value
  follow(event, (dx, dy, now) => drag(dx / scale, dy / scale, snapOf(now, scale)))
}

const layer = ref<HTMLElement>()

function write(event: MouseEvent, { id, kind }: PieceLaid): void {
  if (kind !== 'text') return
  const box = layer.value!.getBoundingClientRect()
  const { left, top, scale } = placed.value
  const spot = { x: (event.clientX - box.left - left) / scale, y: (event.clientY - box.top - top) / scale }
  selection.write(id, { spot })
}

/** The piece whose text was written has the focus again. */
function leaveWriting(): void {
  layer.value!.querySelector<HTMLElement>('.piece.on')?.focus()
}

function scaling(piece: PieceLaid, grip: Grip, dx: number, dy: number): Edit {
  return { kind: 'scale_piece', id: piece.id, grip, dx, dy, only_this_size: bench.onlyThisSize }
}

function turning(piece: PieceLaid, dx: number, dy: number, step: number): Edit {
  const distance = TURN_ROOM / placed.value.scale
  return { kind: 'turn_piece', id: piece.id, distance, dx, dy, step, only_this_size: bench.onlyThisSize }
}

function pointing(piece: PieceLaid, end: 'tail' | 'tip', dx: number, dy: number): Edit {
  return { kind: 'point_piece', id: piece.id, end, dx, dy, only_this_size: bench.onlyThisSize }
}

function dragEnd(event: PointerEvent, piece: PieceLaid, end: 'tail' | 'tip'): void {
  const { scale } = placed.value
  follow(event, (dx, dy) => pointing(piece, end, dx / scale, dy / scale))
}

function dragGrip(event: PointerEvent, piece: PieceLaid, grip: Grip): void {
  const { scale } = placed.value
  follow(event, (dx, dy) => scaling(piece, grip, dx / scale, dy / scale))
}

function dragTurn(event: PointerEvent, piece: PieceLaid): void {
  const { scale } = placed.value
  follow(event, (dx, dy, now) => turning(piece, dx / scale, dy / scale, now.shiftKey ? TURN_STEP : 0))
}

/** A press beside all pieces draws a frame that chooses what it touches. */
function pressBare(event: PointerEvent): void {
  if (event.button !== 0) return
  const area = (event.currentTarget as Element).getBoundingClientRect()
  const x0 = event.clientX - area.left
  const y0 = event.clientY - area.top
  if (!event.shiftKey) selection.clear()
  followPointer(event, {
    move: (dx, dy) => (frame.value = { x0, y0, x1: x0 + dx, y1: y0 + dy }),
    end: () => {
      if (frame.value) chooseIn(frame.value)
      frame.value = null
    },
    cancel: () => (frame.value = null),
  })
}

function chooseIn({ x0, y0, x1, y1 }: NonNullable<typeof frame.value>): void {
  const { left, top, scale } = placed.value
  const inside = laid.value.filter(({ x, y, width, height }) => {
    const half = { x: (width * scale) / 2, y: (height * scale) / 2 }
    const middle = { x: left + x * scale, y: top + y * scale }
    return (
      middle.x + half.x > Math.min(x0, x1) &&
      middle.x - half.x < Math.max(x0, x1) &&
      middle.y + half.y > Math.min(y0, y1) &&
      middle.y - half.y < Math.max(y0, y1)
    )
  })
  selection.choose([...new Set([...selection.ids, ...inside.flatMap(({ id }) => selection.groupOf(id))])])
}

const drawn = computed(() => {
  if (!frame.value) return null
  const { x0, y0, x1, y1 } = frame.value
  return {
    left: `${Math.min(x0, x1)}px`,
    top: `${Math.min(y0, y1)}px`,
    width: `${Math.abs(x1 - x0)}px`,
    height: `${Math.abs(y1 - y0)}px`,
  }
})
</script>

<template>
  <div ref="layer" class="layer" @pointerdown="pressBare">
    <button
      v-for="piece in laid"
      :key="piece.id"
      type="button"
      class="piece"
      :class="{ on: selection.ids.includes(piece.id) }"
      :style="boxOf(piece)"
      :data-piece="piece.id"
      :aria-label="pieceName(pieceOf(piece.id)!)"
      :aria-pressed="selection.ids.includes(piece.id)"
      @pointerdown="(event) => press(event, piece)"
      @dblclick="(event) => write(event, piece)"
      @focus="selection.ids.includes(piece.id) || selection.choose([piece.id])"
    ></button>
    <template v-if="only?.tip && only.tail && !selection.only!.locked">
      <StageKnob
        v-for="end in ENDS"
        :key="end"
        form="dot"
        class="end"
        :style="at(only[end]!.x, only[end]!.y)"
        :label="end === 'tip' ? 'What it points at; the arrow keys move it' : 'Where it begins; the arrow keys move it'"
        @pointerdown.stop
        @drag="(event) => dragEnd(event, only!, end)"
        @nudge="(dx, dy) => bench.edit(pointing(only!, end, dx, dy), 'after a pause')"
      />
    </template>
    <PieceCorners v-if="only && selection.pullsCorners && !selection.only!.locked" :piece="only" :origin="origin" />
    <template v-else-if="only && !selection.only!.locked && !isDrawnOut">
      <StageKnob
        v-for="grip in grips"
        :key="grip"
        form="dot"
        class="grip"
        :style="spot(only, ...(CORNERS[grip] ?? SIDES[grip]!))"
        :label="`Piece, ${NAMES[grip]}; the arrow keys drag it`"
        @pointerdown.stop
        @drag="(event) => dragGrip(event, only!, grip)"
        @nudge="(dx, dy) => bench.edit(scaling(only!, grip, dx, dy), 'after a pause')"
      />
      <StageKnob
        form="dot"
        :style="spot(only, 0, -1, TURN_ROOM)"
        label="Turn the piece; the arrow keys turn it, Shift turns by 15 degrees"
        @pointerdown.stop
        @drag="(event) => dragTurn(event, only!)"
        @nudge="(dx, dy) => bench.edit(turning(only!, dx, dy, 0), 'after a pause')"
      />
    </template>
    <SnapLines :origin="origin" />
    <div v-if="drawn" class="frame" :style="drawn"></div>
    <WritingLayer
      v-if="written"
      :key="written.piece.id"
      :piece="written.piece"
      :laid="written.laid"
      :origin="origin"
      @leave="leaveWriting"
    />
  </div>
</template>

<style scoped>
.layer {
  position: absolute;
  inset: 0;
  touch-action: none;
}

.piece {
  position: absolute;
  min-width: 24px;
  min-height: 24px;
  padding: 0;
  border: 0;
  background: none;
  cursor: move;
}

.piece:hover {
  box-shadow:
    0 0 0 1px rgb(255 255 255 / 75%),
    0 0 0 2px rgb(30 42 47 / 55%);
}

.piece.on {
  outline: 0;
  box-shadow:
    0 0 0 1px #ffffff,
    0 0 0 2.5px var(--ink);
}

.grip::before {
  inset: 8px;
}

.end::before {
  inset: 6px;
  background: var(--honey);
}

.frame {
  position: absolute;
  border: 1px dashed #ffffff;
  outline: 1px solid rgb(30 42 47 / 60%);
  background: rgb(255 255 255 / 12%);
  pointer-events: none;
}
</style>
