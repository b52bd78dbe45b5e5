<script setup lang="ts">
// A logo or picture: its plain background knocked out, cut to a form, with a line around it.

import { computed, onMounted, ref } from 'vue'

import { get } from '../../../api/client'
import type { KnockOut, PieceChanges, PicturePiece, PlainBackground } from '../../../api/types'
import { usePieceEdits } from '../../../composables/pieceEdits'
import { useBench } from '../../../stores/bench'
import { useNotices } from '../../../stores/notices'
import ChoiceChips from '../../shared/ChoiceChips.vue'
import ColourField from '../../shared/ColourField.vue'
import SliderRow from '../../shared/SliderRow.vue'
import EdgeLine from './EdgeLine.vue'
import PieceSubject from './PieceSubject.vue'
import TickBox from '../../shared/TickBox.vue'

const props = defineProps<{ piece: PicturePiece }>()

const REACH = 0.08
const CUTS: { key: PicturePiece['cut']; label: string }[] = [
  { key: 'whole', label: 'whole' },
  { key: 'square', label: 'square' },
  { key: 'rounded', label: 'rounded' },
  { key: 'circle', label: 'circle' },
  { key: 'heart', label: 'heart' },
  { key: 'star', label: 'star' },
]

const bench = useBench()
const notices = useNotices()
const { set } = usePieceEdits()
/** The plain colour that the picture lies on, or null. */
const background = ref<string | null>(null)
const out = computed(() => props.piece.knock_out)

onMounted(async () => {
  try {
    background.value = (await get<PlainBackground>(`/bench/background/${props.piece.sha256}`)).colour
  } catch (error) {
    notices.tell(error)
  }
})

const knocked = (fields: Partial<KnockOut>): Partial<PieceChanges> => ({
  knock_out: { colour: background.value ?? '#FFFFFF', reach: REACH, enclosed: true, ...out.value, ...fields },
})
const change = (changes: Partial<PieceChanges>) => void bench.edit(set(changes))
</script>

<template>
  <PieceSubject :piece="piece" />
  <SliderRow
    label="Match the light"
    :value="piece.match"
    :max="100"
    @reset="change({ match: 0 })"
    @move="(match) => bench.drag(set({ match }))"
    @change="(match) => bench.slide(set({ match }))"
  />
  <template v-if="!piece.subject">
    <p v-if="background && !out" class="noticed">
      This picture has a plain background, {{ background }}.
      <button type="button" class="link strong" @click="change(knocked({}))">Make it transparent</button>
    </p>
    <TickBox v-else label="Make one colour transparent" :checked="!!out" @update:checked="change(out ? { knock_out: null } : knocked({}))" />
    <template v-if="out">
      <ColourField label="Transparent colour" :value="out.colour" :swatches="[]" @change="(colour) => change(knocked({ colour }))" />
      <SliderRow
        label="Tolerance"
        :value="100 * out.reach"
        :min="1"
        :max="50"
        @reset="change(knocked({ reach: REACH }))"
        @move="(value) => bench.drag(set(knocked({ reach: value / 100 })))"
        @change="(value) => bench.slide(set(knocked({ reach: value / 100 })))"
      />
      <TickBox label="Also enclosed areas" :checked="out.enclosed" @update:checked="change(knocked({ enclosed: !out.enclosed }))" />
    </template>
  </template>
  <p class="field-label">Shape</p>
  <ChoiceChips
    label="Shape"
    :choices="CUTS"
    :chosen="piece.cut"
    @choose="(cut) => change({ cut })"
    @hover="(cut) => (bench.tryOut = cut ? set({ cut }) : null)"
  />
  <TickBox label="Border" :checked="!!piece.stroke" @update:checked="change({ stroke: piece.stroke ? null : '#FFFFFF' })" />
  <EdgeLine :piece="piece" />
</template>

<style scoped>
.noticed {
  margin-top: 8px;
  font-size: 12px;
}

.tick {
  margin: 5px 0 0;
}
</style>
