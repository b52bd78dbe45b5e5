<script setup lang="ts">
import { computed } from 'vue'

import type { PieceChanges, TextPiece } from '../../../api/types'
import { usePieceEdits } from '../../../composables/pieceEdits'
import { useBench } from '../../../stores/bench'
import { useFonts } from '../../../stores/fonts'
import { useSelection } from '../../../stores/selection'
import ChoiceChips from '../../shared/ChoiceChips.vue'
import FamilySelect from '../../shared/FamilySelect.vue'
import FoldSection from '../../shared/FoldSection.vue'
import SliderRow from '../../shared/SliderRow.vue'
import BehindLetters from './BehindLetters.vue'
import LetterColour from './LetterColour.vue'
import PartEditor from './PartEditor.vue'
import TickBox from '../../shared/TickBox.vue'

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

const bench = useBench()
const fonts = useFonts()
const { set } = usePieceEdits()
const selection = useSelection()

const family = computed(() => fonts.named(props.piece.family))
const short = computed(() => Math.min(bench.layout!.width, bench.layout!.height))
const laid = computed(() => bench.layout!.pieces.find(({ id }) => id === props.piece.id))
const size = computed(() => laid.value?.font_pixels ?? props.piece.size * short.value)

const spacingWords = computed(() => {
  const { letter_spacing, line_spacing, bend } = props.piece
  const parts = [letter_spacing ? 'letters' : '', line_spacing !== 1 ? 'lines' : '', bend ? `arc ${bend}°` : '']
  return parts.filter(Boolean).join(', ') || 'normal'
})
const behindWords = computed(() => {
  const parts = [props.piece.outline ? 'outline' : '', props.piece.plate ? 'box' : '']
  return parts.filter(Boolean).join(', ') || 'none'
})

const change = (changes: Partial<PieceChanges>) => void bench.edit(set(changes))
const move = (changes: Partial<PieceChanges>) => bench.drag(set(changes))
const slide = (changes: Partial<PieceChanges>) => void bench.slide(set(changes))
</script>

<template>
  <button type="button" class="action words" @click="selection.write(piece.id)">Write on the picture</button>
  <PartEditor
    :piece="piece"
    :weights="[...(family?.weights ?? [])]"
    :has-italic="!!family?.has_italic"
  />
  <FamilySelect
    :family="piece.family"
    :weight="piece.weight"
    :words="piece.text"
    @update:family="(key) => change({ family: key })"
    @update:weight="(weight) => change({ weight, italic: false })"
    @hover-family="(key) => (bench.tryOut = key ? set({ family: key }) : null)"
    @hover-weight="(weight) => (bench.tryOut = weight ? set({ weight }) : null)"
  />
  <TickBox v-if="family?.has_italic" label="Italic" :checked="piece.italic" @update:checked="change({ italic: !piece.italic })" />
  <SliderRow
    label="Size"
    unit="px"
    :value="size"
    :min="6"
    :max="Math.round(short * 0.6)"
    @move="(px) => move({ size: px / short, fill: false })"
    @change="(px) => slide({ size: px / short, fill: false })"
  />
  <TickBox label="Fit to margin" :checked="piece.fill" @update:checked="change({ fill: !piece.fill, wrap: 1 })" />
  <div class="row">
    <ChoiceChips label="Align" :choices="ALIGNS" :chosen="piece.align" @choose="(align) => change({ align })" />
  </div>
  <LetterColour :piece="piece" />
  <FoldSection title="Spacing and arc" :summary="spacingWords">
    <ChoiceChips label="Case" :choices="CASES" :chosen="piece.case" @choose="(key) => change({ case: key })" />
    <SliderRow
      label="Letter spacing"
      :value="100 * piece.letter_spacing"
      :min="-10"
      :max="60"
      @reset="change({ letter_spacing: 0 })"
      @move="(value) => move({ letter_spacing: value / 100 })"
      @change="(value) => slide({ letter_spacing: value / 100 })"
    />
    <SliderRow
      label="Line spacing"
      :value="100 * piece.line_spacing"
      :min="60"
      :max="200"
      @reset="change({ line_spacing: 1 })"
      @move="(value) => move({ line_spacing: value / 100 })"
      @change="(value) => slide({ line_spacing: value / 100 })"
    />
    <SliderRow
      label="Arc"
      unit="°"
      :value="piece.bend"
      :min="-350"
      :max="350"
      @reset="change({ bend: 0 })"
      @move="(bend) => move({ bend: Math.round(bend) })"
      @change="(bend) => slide({ bend: Math.round(bend) })"
    />
  </FoldSection>
  <FoldSection title="Outline and box" :summary="behindWords"><BehindLetters :piece="piece" /></FoldSection>
</template>

<style scoped>
.words {
  width: 100%;
  margin-top: 10px;
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
