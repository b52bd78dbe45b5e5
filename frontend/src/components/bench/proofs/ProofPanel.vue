<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'

import type { SizeLaid } from '../../../api/types'
import { explain, vTip } from '../../../composables/explanations'
import { useBench } from '../../../stores/bench'
import SizeDialog from '../SizeDialog.vue'
import TryOutDialog from '../tryout/TryOutDialog.vue'
import ProofItem from './ProofItem.vue'

/** The longest side of a proof, as a share of the panel's width; the least that can be judged, in CSS pixels. */
const SHARE = 0.44
const LEAST = 48

const bench = useBench()
const showSizes = ref(false)
const tryOut = ref(false)
const panel = ref<HTMLElement>()
const { width } = useElementSize(panel)
const room = computed(() => Math.max(80, Math.round(SHARE * width.value)))
const sizes = computed(() => bench.draft!.sizes)
const longest = (size: SizeLaid) => Math.max(size.width, size.height)
/** CSS pixels to one output pixel that all screen sizes share. */
const shared = computed(() => {
  const onScreen = sizes.value.filter((size) => !size.on_paper)
  return room.value / Math.max(1, ...onScreen.map(longest))
})

/** How large a proof is drawn, and whether that is larger than its share. */
function shown(size: SizeLaid): { scale: number; enlarged: boolean } {
  const enlarged = !!size.on_paper || longest(size) * shared.value < LEAST
  return { scale: enlarged ? LEAST / longest(size) : shared.value, enlarged }
}
</script>

<template>
  <section ref="panel">
    <header>
      <h2>Proofs</h2>
      <button v-tip="explain('Try-out')" type="button" class="link strong" @click="tryOut = true">Try-out</button>
      <button type="button" class="link strong" @click="showSizes = true">+ size</button>
    </header>
    <ul :style="{ '--longest': `${room}px` }">
      <ProofItem
        v-for="(size, place) in sizes"
        :key="size.id"
        :size="size"
        :place="place"
        :scale="shown(size).scale"
        :enlarged="shown(size).enlarged"
      />
    </ul>
    <TryOutDialog v-model="tryOut" />
    <SizeDialog
      v-model="showSizes"
      title="Add a size"
      :without-photo="!bench.document!.photo"
      @choose="(plan) => bench.edit({ kind: 'add_size', plan })"
    />
  </section>
</template>

<style scoped>
header {
  display: flex;
  gap: 12px;
  align-items: baseline;
  margin-bottom: 7px;
}

h2 {
  flex: 1;
  font-size: 16px;
  font-weight: 700;
}

.link {
  font-size: 12px;
}
</style>
