<script setup lang="ts">
import { computed } from 'vue'

import { cutLineOf, maskOf } from '../../../api/drafts'
import type { Edit } from '../../../api/types'
import { downloadBlob } from '../../../composables/downloads'
import { useTips, vTip } from '../../../composables/explanations'
import { useBench } from '../../../stores/bench'
import { useCutOut } from '../../../stores/cutOut'
import { useNotices } from '../../../stores/notices'
import SliderRow from '../../shared/SliderRow.vue'
import TickBox from '../../shared/TickBox.vue'

type Length = 'shift' | 'softness' | 'specks' | 'holes'

const ROWS: { name: Length; label: string; most: number }[] = [
  { name: 'shift', label: 'Shift', most: 0.01 },
  { name: 'softness', label: 'Softness', most: 0.01 },
  { name: 'specks', label: 'Specks', most: 0.1 },
  { name: 'holes', label: 'Holes', most: 0.1 },
]

const bench = useBench()
const tip = useTips()
const cutOut = useCutOut()
const notices = useNotices()
const edge = computed(() => bench.document!.cut_out.edge)

/** Save the mask over the whole photo, so that other programs can use it, or this one again. */
async function saveMask(): Promise<void> {
  try {
    downloadBlob(await maskOf(bench.draft!, bench.sizeId), `${bench.document!.name}-mask.png`)
  } catch (error) {
    notices.tell(error)
  }
}

/** Save the line round the subject, for a cutting plotter. */
async function saveCutLine(): Promise<void> {
  try {
    downloadBlob(await cutLineOf(bench.draft!, bench.sizeId), `${bench.document!.name}-cut-line.svg`)
  } catch (error) {
    notices.tell(error)
  }
}

function change(fields: object): Edit {
  return { kind: 'set_subject_edge', ...fields }
}
</script>

<template>
  <SliderRow
    v-for="{ name, label, most } in ROWS"
    :key="name"
    :label="label"
    unit="px"
    :digits="1"
    :step="0.5"
    :min="name === 'shift' ? Math.round(-most * cutOut.longSide) : 0"
    :max="Math.round(most * cutOut.longSide)"
    :value="edge[name] * cutOut.longSide"
    @reset="bench.edit(change({ [name]: name === 'specks' ? 0.01 : 0 }))"
    @move="(px) => bench.drag(change({ [name]: px / cutOut.longSide }))"
    @change="(px) => bench.slide(change({ [name]: px / cutOut.longSide }))"
  />
  <TickBox label="Soft hair" :checked="edge.soft_hair" @update:checked="bench.edit(change({ soft_hair: $event }))" />
  <TickBox label="Clean the fringe" :checked="edge.clean_fringe" @update:checked="bench.edit(change({ clean_fringe: $event }))" />
  <p class="save">
    <button v-tip="tip('Save the mask as a picture')" type="button" class="link" @click="saveMask">
      Save the mask as a picture
    </button>
    <br />
    <button v-tip="tip('Save the cut line')" type="button" class="link" @click="saveCutLine">Save the cut line</button>
  </p>
</template>

<style scoped>
.tick,
.save {
  margin-top: 8px;
}
</style>
