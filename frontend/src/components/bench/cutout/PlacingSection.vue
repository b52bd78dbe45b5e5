<script setup lang="ts">
import { ref } from 'vue'

import type { Proposal } from '../../../api/types'
import { useTips, vTip } from '../../../composables/explanations'
import { useBench } from '../../../stores/bench'
import { useNotices } from '../../../stores/notices'
import SliderRow from '../../shared/SliderRow.vue'
import TickBox from '../../shared/TickBox.vue'

/** Of the size's side that the subject fills more of. */
const FILLED = 0.85

const bench = useBench()
const tip = useTips()
const notices = useNotices()
/** Room around the subject, as a share of its own sides. */
const margin = ref(0.05)

function standOut(stands_out: boolean): void {
  const only_this_size = bench.onlyThisSize
  void bench.edit({ kind: 'set_cut_out', changes: { stands_out }, only_this_size })
}

async function place(room: number): Promise<void> {
  try {
    const { edit } = await bench.ask<Proposal>('/bench/placing', { margin: room })
    if (edit) await bench.edit(edit)
  } catch (error) {
    notices.tell(error)
  }
}
</script>

<template>
  <SliderRow
    label="Margin"
    :value="100 * margin"
    :max="100"
    @move="(percent) => (margin = percent / 100)"
    @change="(percent) => (margin = percent / 100)"
  />
  <div class="buttons">
    <button v-tip="tip('Crop to the subject')" type="button" class="action" @click="place(margin)">Crop to the subject</button>
    <button v-tip="tip('Fill 85 %')" type="button" class="action" @click="place((1 / FILLED - 1) / 2)">
      Fill 85 %
    </button>
    <button
      v-if="!bench.layout!.follows_focus"
      type="button"
      class="action"
      @click="bench.edit({ kind: 'set_window', window: null })"
    >
      Position automatically
    </button>
  </div>
  <TickBox v-if="bench.size!.shape.kind !== 'rectangle'" label="Let it stand out at the top" :checked="bench.here!.cut_out.stands_out" @update:checked="standOut($event)" />
</template>

<style scoped>
.tick {
  margin-top: 8px;
}

.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-top: 8px;
}
</style>
