<script setup lang="ts">
// Writing in the drawn text itself. A field that is not seen takes the keys, so that input methods,
// copying and undo are the browser's; its caret and what is marked are drawn where the service says
// that the letters are.

import { until, useEventListener } from '@vueuse/core'
import { computed, nextTick, onMounted, ref, watch } from 'vue'

import type { PieceLaid, TextPiece } from '../../../api/types'
import { lineStep, type LineStep } from '../../../composables/keyNames'
import { useLetters } from '../../../composables/letters'
import { useOutputSpace } from '../../../composables/outputSpace'
import { useWriting } from '../../../composables/writing'
import { useSelection } from '../../../stores/selection'

const props = defineProps<{
  piece: TextPiece
  laid: PieceLaid
  origin: { x: number; y: number }
}>()
const emit = defineEmits<{
  /** Escape: the piece stays chosen. */
  leave: []
}>()

/** How long the caret waits for the letters that it is put between. */
const LAG_MS = 1000
/** How far round the letters a press belongs to them, in CSS pixels. */
const AIR = 10

const selection = useSelection()
const { placed, transform, at } = useOutputSpace(() => props.origin)
const { text, write, commit, leave } = useWriting(() => props.piece)
const letters = useLetters(() => props.piece)
const layer = ref<HTMLElement>()
const field = ref<HTMLTextAreaElement>()
const isFocused = ref(false)
/** The end of what is marked that does not move. */
let fixed = 0

const caret = computed(() => {
  const { start, end, backwards } = selection.marked
  return letters.stopAt(backwards ? start : end)?.edge
})
const marks = computed(() => letters.boxes(selection.marked.start, selection.marked.end))
/** What takes the presses: the text's own box, with some air. */
const hitArea = computed(() => {
  const { x, y, width, height, angle } = props.laid
  const { scale } = placed.value
  return {
    ...at(x, y),
    width: `${width * scale + 2 * AIR}px`,
    height: `${height * scale + 2 * AIR}px`,
    transform: `translate(-50%, -50%) rotate(${angle}deg)`,
  }
})
/** The letters on the picture are older than what was typed. */
const lags = computed(() => letters.laidText.value !== text.value)
/** The field stands at the caret, where input methods open their lists, and never out of the stage. */
const fieldPlace = computed(() => {
  const edge = caret.value ?? [props.laid.x, props.laid.y, props.laid.x, props.laid.y]
  const { left, top, scale } = placed.value
  const height = Math.max(8, Math.hypot(edge[2] - edge[0], edge[3] - edge[1]) * scale)
  const within = (place: number, side: number | undefined) => Math.max(0, Math.min((side ?? 0) - height - 8, place))
  return {
    left: `${within(left + edge[0] * scale, layer.value?.clientWidth)}px`,
    top: `${within(top + edge[1] * scale, layer.value?.clientHeight)}px`,
    height: `${height}px`,
    fontSize: `${height / 1.3}px`,
  }
})

onMounted(begin)
watch(() => selection.writes, begin)

async function begin(): Promise<void> {
  await nextTick()
  focus()
  const { letter, spot } = selection.beginning
  if (letter) {
    const end = text.value.length
    field.value!.setRangeText(letter, end, end, 'end')
    input()
  } else if (spot) await placeWhenLaid(spot.x, spot.y)
  else field.value!.select()
  readMarks()
}

async function placeWhenLaid(x: number, y: number): Promise<void> {
  await until(lags).toBe(false, { timeout: LAG_MS })
  const stop = letters.nearest(x, y)
  if (stop) mark(stop.at, stop.at)
}

const focus = () => field.value?.focus({ preventScroll: true })

/** Mark from one place to the other, where the caret stands. */
function mark(from: number, to: number): void {
  field.value?.setSelectionRange(Math.min(from, to), Math.max(from, to), to < from ? 'backward' : 'forward')
  readMarks()
}

function readMarks(): void {
  if (!field.value) return
  const { selectionStart, selectionEnd, selectionDirection } = field.value
  selection.marked = { start: selectionStart, end: selectionEnd, backwards: selectionDirection === 'backward' }
}

useEventListener(document, 'selectionchange', () => {
  if (document.activeElement === field.value) readMarks()
})

function input(): void {
  write(field.value!.value)
  readMarks()
}

/** Lines are those on the picture; the field knows only line breaks, by which it goes until the newest
 * letters are laid out. */
function keydown(event: KeyboardEvent): void {
  event.stopPropagation()
  const step = event.isComposing ? null : lineStep(event)
  if (step === null || lags.value) return
  event.preventDefault()
  const { start, end, backwards } = selection.marked
  const to = stepFrom(backwards ? start : end, step)
  if (to !== undefined) mark(event.shiftKey ? (backwards ? end : start) : to, to)
}

function stepFrom(place: number, step: LineStep): number | undefined {
  if (step === 'first' || step === 'last') return letters.lineAround(place)?.[step === 'first' ? 0 : 1].at
  return letters.beside(place, step)?.at ?? (step < 0 ? 0 : text.value.length)
}

function placeOf(event: PointerEvent | MouseEvent): number {
  const box = layer.value!.getBoundingClientRect()
  const { left, top, scale } = placed.value
  return letters.nearest((event.clientX - box.left - left) / scale, (event.clientY - box.top - top) / scale)?.at ?? 0
}

function press(event: PointerEvent): void {
  if (event.button !== 0) return
  event.preventDefault()
  focus()
  const { start, end, backwards } = selection.marked
  fixed = event.shiftKey ? (backwards ? end : start) : placeOf(event)
  mark(fixed, placeOf(event))
  ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
}

function drag(event: PointerEvent): void {
  if (event.buttons & 1) mark(fixed, placeOf(event))
}

function markWord(event: MouseEvent): void {
  const place = placeOf(event)
  const words = [...new Intl.Segmenter(undefined, { granularity: 'word' }).segment(text.value)]
  const word = words.findLast(({ index }) => index <= Math.min(place, text.value.length - 1))
  if (word) mark(word.index, word.index + word.segment.length)
}

/** The docket works on what is marked, so that stays; anything else ends the writing. */
async function blur({ relatedTarget }: FocusEvent): Promise<void> {
  isFocused.value = false
  if (relatedTarget instanceof Element && relatedTarget.closest('.docket, .el-popper')) return commit()
  if (selection.typing === props.piece.id) selection.typing = null // at once, so that the piece can be dragged
  await leave()
}
</script>

<template>
  <div ref="layer" class="writing" :aria-busy="lags">
    <div
      class="area"
      :style="hitArea"
      @pointerdown.stop="press"
      @pointermove="drag"
      @dblclick.stop="markWord"
    ></div>
    <svg aria-hidden="true">
      <g :transform="transform">
        <polygon v-for="box in marks" :key="box" class="marked" :points="box" />
        <template v-if="caret && isFocused">
          <line v-for="line in ['under', 'over']" :key="line" :class="line" :x1="caret[0]" :y1="caret[1]" :x2="caret[2]" :y2="caret[3]" />
        </template>
      </g>
    </svg>
    <textarea
      ref="field"
      :value="text"
      :style="fieldPlace"
      maxlength="5000"
      dir="auto"
      spellcheck="false"
      aria-label="Words of the text"
      @input="input"
      @keydown.escape.stop="emit('leave')"
      @keydown="keydown"
      @focus="isFocused = true"
      @blur="blur"
    ></textarea>
  </div>
</template>

<style scoped>
.writing {
  position: absolute;
  inset: 0;
  overflow: hidden;
  pointer-events: none;
}

.area {
  position: absolute;
  cursor: text;
  pointer-events: auto;
  touch-action: none;
}

svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}

.marked {
  fill: rgb(88 150 200 / 50%);
}

line {
  animation: blink 1.1s steps(1) infinite;
  vector-effect: non-scaling-stroke;
}

.under {
  stroke: #ffffff;
  stroke-width: 4px;
}

.over {
  stroke: var(--ink);
  stroke-width: 1.6px;
}

@keyframes blink {
  50% {
    opacity: 0;
  }
}

@media (prefers-reduced-motion: reduce) {
  line {
    animation: none;
  }
}

textarea {
  position: absolute;
  width: 1px;
  padding: 0;
  border: 0;
  overflow: hidden;
  opacity: 0;
  line-height: 1;
  white-space: pre;
  resize: none;
}
</style>
