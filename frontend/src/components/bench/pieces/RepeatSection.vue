<script setup lang="ts">
// Copies of a piece as one piece: in a row, round a ring, scattered.

import { computed } from 'vue'

import type { Piece, Repeat } from '../../../api/types'
import { usePieceEdits } from '../../../composables/pieceEdits'
import { useBench } from '../../../stores/bench'
import { useSelection } from '../../../stores/selection'
import ChoiceChips from '../../shared/ChoiceChips.vue'
import FoldSection from '../../shared/FoldSection.vue'
import SliderRow from '../../shared/SliderRow.vue'
import TickBox from '../../shared/TickBox.vue'

const props = defineProps<{ piece: Piece }>()

type Kind = 'once' | Repeat['kind']

const FIRST: Repeat = {
  kind: 'row',
  count: 5,
  spread: 0.6,
  turned: false,
  seed: 1,
  smallest: 100,
  near_blur: 0,
  keep_off: false,
  lean: 'none',
}
const LEANS: { key: Repeat['lean']; label: string }[] = [
  { key: 'none', label: 'not' },
  { key: 'towards', label: 'towards the focus' },
  { key: 'away', label: 'away from it' },
]
const SEEDS = 9999
const KINDS: { key: Kind; label: string }[] = [
  { key: 'once', label: 'once' },
  { key: 'row', label: 'in a row' },
  { key: 'ring', label: 'round a ring' },
  { key: 'scatter', label: 'scattered' },
]

const bench = useBench()
const selection = useSelection()
const { set } = usePieceEdits()
const short = computed(() => Math.min(bench.layout!.width, bench.layout!.height))

const repeated = (fields: Partial<Repeat>) => set({ repeat: { ...FIRST, ...props.piece.repeat, ...fields } })
/** Each copy becomes a piece that can be changed alone; all of them are chosen. */
async function takeApart(): Promise<void> {
  await bench.edit({ kind: 'take_apart', id: props.piece.id })
  selection.choose(selection.groupOf(bench.here!.pieces.at(-1)!.id))
}

const ofKind = (kind: Kind) => (kind === 'once' ? set({ repeat: null }) : repeated({ kind }))
</script>

<template>
  <FoldSection title="Repeat" :summary="piece.repeat ? `${piece.repeat.count} times` : 'once'">
    <ChoiceChips
      label="Repeat"
      :choices="KINDS"
      :chosen="piece.repeat?.kind ?? 'once'"
      @choose="(kind) => bench.edit(ofKind(kind))"
      @hover="(kind) => (bench.tryOut = kind ? ofKind(kind) : null)"
    />
    <template v-if="piece.repeat">
      <SliderRow
        label="Count"
        unit=""
        :value="piece.repeat.count"
        :min="2"
        :max="60"
        @move="(count) => bench.drag(repeated({ count: Math.round(count) }))"
        @change="(count) => bench.slide(repeated({ count: Math.round(count) }))"
      />
      <SliderRow
        label="Spread"
        :value="100 * piece.repeat.spread"
        :min="1"
        :max="200"
        @move="(value) => bench.drag(repeated({ spread: value / 100 }))"
        @change="(value) => bench.slide(repeated({ spread: value / 100 }))"
      />
      <TickBox v-if="piece.repeat.kind !== 'row'" :label="piece.repeat.kind === 'ring' ? 'Turn along the ring' : 'Random rotation'" :checked="piece.repeat.turned" @update:checked="bench.edit(repeated({ turned: !piece.repeat.turned }))" />
      <template v-if="bench.document!.focus">
        <p class="field-label">Lean</p>
        <ChoiceChips
          label="Lean"
          :choices="LEANS"
          :chosen="piece.repeat.lean"
          @choose="(lean) => bench.edit(repeated({ lean }))"
          @hover="(lean) => (bench.tryOut = lean ? repeated({ lean }) : null)"
        />
      </template>
      <template v-if="piece.repeat.kind === 'scatter'">
        <TickBox v-if="bench.document!.focus?.box" label="Keep off the focus" :checked="piece.repeat.keep_off" @update:checked="bench.edit(repeated({ keep_off: !piece.repeat.keep_off }))" />
        <SliderRow
          label="Smallest"
          :value="piece.repeat.smallest"
          :min="10"
          :max="100"
          @move="(smallest) => bench.drag(repeated({ smallest }))"
          @change="(smallest) => bench.slide(repeated({ smallest }))"
        />
        <SliderRow
          label="Near blur"
          unit="px"
          :value="piece.repeat.near_blur * short"
          :max="Math.round(0.04 * short)"
          :step="0.5"
          :digits="1"
          :percent="short / 100"
          @move="(px) => bench.drag(repeated({ near_blur: px / short }))"
          @change="(px) => bench.slide(repeated({ near_blur: px / short }))"
        />
        <button
          type="button"
          class="link"
          @click="bench.edit(repeated({ seed: (piece.repeat.seed + 1) % SEEDS }))"
        >
          Shuffle
        </button>
      </template>
      <button type="button" class="link apart" @click="takeApart">Take apart</button>
    </template>
  </FoldSection>
</template>

<style scoped>
.fold {
  margin-top: 10px;
}

.slider-row {
  margin-top: 5px;
}

.apart {
  float: right;
}
</style>
