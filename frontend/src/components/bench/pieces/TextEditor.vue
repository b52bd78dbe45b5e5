<script setup lang="ts">
import { computed, shallowRef } from 'vue'

import type { PieceChanges, TextPiece } from '../../../api/types'
import { usePieceEdits } from '../../../composables/pieceEdits'
import { useWriting } from '../../../composables/writing'
import { useBench } from '../../../stores/bench'
import { useFonts } from '../../../stores/fonts'
import ChoiceChips from '../../shared/ChoiceChips.vue'
import SliderRow from '../../shared/SliderRow.vue'
import BehindLetters from './BehindLetters.vue'
import FontPicker from './FontPicker.vue'
import LetterColour from './LetterColour.vue'
import PartEditor from './PartEditor.vue'

const props = defineProps<{ piece: TextPiece }>()

const ALIGNS: { key: TextPiece['align']; label: string }[] = [
  { key: 'left', label: 'left' },
  { key: 'centre', label: 'centre' },
  { key: 'right', label: 'right' },
]
const CASES: { key: TextPiece['case']; label: string }[] = [
  { key: 'typed', label: 'Aa' },
  { key: 'capitals', label: 'AA' },
  { key: 'lower', label: 'aa' },
]
const WEIGHTS: Record<number, string> = { 400: 'regular', 700: 'bold', 900: 'heavy' }

const bench = useBench()
const fonts = useFonts()
const { set } = usePieceEdits()
const { text, write, leave } = useWriting(() => props.piece)
/** What is marked in the field of words. */
const marked = shallowRef({ start: 0, end: 0 })

const family = computed(() => fonts.named(props.piece.family))
const weights = computed(() =>
  (family.value?.weights ?? []).map((weight) => ({ key: String(weight), label: WEIGHTS[weight] ?? String(weight) })),
)
const short = computed(() => Math.min(bench.layout!.width, bench.layout!.height))
const laid = computed(() => bench.layout!.pieces.find(({ id }) => id === props.piece.id))
const size = computed(() => laid.value?.font_pixels ?? props.piece.size * short.value)

function mark(event: Event): void {
  const { selectionStart, selectionEnd } = event.target as HTMLTextAreaElement
  marked.value = { start: selectionStart, end: selectionEnd }
}

const change = (changes: Partial<PieceChanges>) => void bench.edit(set(changes))
const move = (changes: Partial<PieceChanges>) => bench.drag(set(changes))
const slide = (changes: Partial<PieceChanges>) => void bench.slide(set(changes))
</script>

<template>
  <label class="words">
    <span class="visually-hidden">Words</span>
    <textarea
      :value="text"
      rows="2"
      maxlength="5000"
      @select="mark"
      @keyup="mark"
      @pointerup="mark"
      @input="write(($event.target as HTMLTextAreaElement).value)"
      @blur="leave"
    ></textarea>
  </label>
  <PartEditor
    :piece="piece"
    :weights="[...(family?.weights ?? [])]"
    :has-italic="!!family?.has_italic"
    :marked="marked"
  />
  <FontPicker
    :family="piece.family"
    :weight="piece.weight"
    :words="piece.text"
    @choose="(key) => change({ family: key })"
    @hover="(key) => (bench.tryOut = key ? set({ family: key }) : null)"
  />
  <div class="row">
    <ChoiceChips
      v-if="weights.length > 1"
      label="Weight"
      :choices="weights"
      :chosen="String(piece.weight)"
      @choose="(weight) => change({ weight: Number(weight), italic: false })"
      @hover="(weight) => (bench.tryOut = weight ? set({ weight: Number(weight) }) : null)"
    />
    <label v-if="family?.has_italic" class="tick">
      <input type="checkbox" :checked="piece.italic" @change="change({ italic: !piece.italic })" />
      italic
    </label>
  </div>
  <SliderRow
    label="Size"
    unit="px"
    :value="size"
    :min="6"
    :max="Math.round(short * 0.6)"
    @move="(px) => move({ size: px / short, fill: false })"
    @change="(px) => slide({ size: px / short, fill: false })"
  />
  <label class="tick">
    <input type="checkbox" :checked="piece.fill" @change="change({ fill: !piece.fill, wrap: 1 })" />
    fill the box: as large as fits, on every size
  </label>
  <div class="row">
    <ChoiceChips label="Align" :choices="ALIGNS" :chosen="piece.align" @choose="(align) => change({ align })" />
    <ChoiceChips label="Case" :choices="CASES" :chosen="piece.case" @choose="(key) => change({ case: key })" />
  </div>
  <LetterColour :piece="piece" />
  <SliderRow
    label="Spacing"
    title="Space between letters"
    :value="100 * piece.letter_spacing"
    :min="-10"
    :max="60"
    @reset="change({ letter_spacing: 0 })"
    @move="(value) => move({ letter_spacing: value / 100 })"
    @change="(value) => slide({ letter_spacing: value / 100 })"
  />
  <SliderRow
    label="Line gap"
    title="From one line to the next"
    :value="100 * piece.line_spacing"
    :min="60"
    :max="200"
    @reset="change({ line_spacing: 1 })"
    @move="(value) => move({ line_spacing: value / 100 })"
    @change="(value) => slide({ line_spacing: value / 100 })"
  />
  <SliderRow
    label="Arc"
    title="Lays the words on an arc"
    unit="°"
    :value="piece.bend"
    :min="-350"
    :max="350"
    @reset="change({ bend: 0 })"
    @move="(bend) => move({ bend: Math.round(bend) })"
    @change="(bend) => slide({ bend: Math.round(bend) })"
  />
  <BehindLetters :piece="piece" />
</template>

<style scoped>
.words textarea {
  width: 100%;
  margin-top: 10px;
  padding: 6px 8px;
  border: 1px solid var(--edge);
  border-radius: 4px;
  background: #ffffff;
  color: inherit;
  font: 13px/1.35 var(--text);
  resize: vertical;
}

.row {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 14px;
  align-items: center;
  margin-top: 7px;
}

.tick {
  margin: 4px 0 0;
}

.slider-row {
  margin-top: 4px;
}
</style>
