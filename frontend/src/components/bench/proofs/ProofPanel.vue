<script setup lang="ts">
import { computed, ref } from 'vue'

import type { SizeLaid } from '../../../api/types'
import { useBench } from '../../../stores/bench'
import SizeDialog from '../SizeDialog.vue'
import ProofItem from './ProofItem.vue'

/** The longest side of a proof, in CSS pixels, and the least that can be judged. */
const LONGEST = 88
const LEAST = 48

const asSeen = defineModel<boolean>('asSeen', { required: true })

const bench = useBench()
const showSizes = ref(false)
const sizes = computed(() => bench.draft!.sizes)
const longest = (size: SizeLaid) => Math.max(size.width, size.height)
/** CSS pixels to one output pixel that all screen sizes share. */
const shared = computed(() => {
  const onScreen = sizes.value.filter((size) => !size.on_paper)
  return LONGEST / Math.max(1, ...onScreen.map(longest))
})

/** How large a proof is drawn, and whether that is larger than its share. */
function shown(size: SizeLaid): { scale: number; enlarged: boolean } {
  if (asSeen.value) return { scale: size.seen_width / size.width, enlarged: false }
  const enlarged = !!size.on_paper || longest(size) * shared.value < LEAST
  return { scale: enlarged ? LEAST / longest(size) : shared.value, enlarged }
}
</script>

<template>
  <section>
    <header>
      <h2>Proofs</h2>
      <button
        type="button"
        class="link"
        :aria-pressed="asSeen"
        title="Every size as wide as people usually see it"
        @click="asSeen = !asSeen"
      >
        {{ asSeen ? 'small again' : 'as seen' }}
      </button>
      <button type="button" class="link strong" @click="showSizes = true">+ size</button>
    </header>
    <ul :class="{ seen: asSeen }">
      <ProofItem
        v-for="(size, place) in sizes"
        :key="size.id"
        :size="size"
        :place="place"
        :scale="shown(size).scale"
        :enlarged="shown(size).enlarged"
        :stacked="asSeen"
      />
    </ul>
    <SizeDialog v-model="showSizes" adds="add_size" />
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

.seen {
  display: flex;
  flex-wrap: wrap;
  gap: 14px;
  align-items: flex-start;
}
</style>
