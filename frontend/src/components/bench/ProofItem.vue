<script setup lang="ts">
import { watchDebounced } from '@vueuse/core'
import { computed } from 'vue'

import type { Size } from '../../api/types'
import { usePictures, type PictureWish } from '../../composables/pictures'
import { useBench } from '../../stores/bench'
import { useChecks } from '../../stores/checks'

const props = defineProps<{ size: Size }>()

/** The longest side of a proof, in CSS pixels. */
const LONGEST = 88
/** Proofs wait until the stage has been idle this long. */
const IDLE_MS = 80

const bench = useBench()
const checks = useChecks()
const isActive = computed(() => props.size.id === bench.sizeId)
const output = computed(() => ({ width: bench.layout!.width, height: bench.layout!.height }))
const looks = computed(() => checks.found.filter((check) => check.light === 'look').length)

const { shown, ask } = usePictures<PictureWish>(`proof-${props.size.id}`)

watchDebounced(
  () => [bench.stageDrawn, bench.document],
  () => {
    if (!bench.document) return
    const longest = Math.max(output.value.width, output.value.height)
    ask({
      document: bench.document,
      size_id: props.size.id,
      edit: null,
      view: 'final',
      scale: Math.min(1, (LONGEST * window.devicePixelRatio) / longest),
      region: null,
      place: 'proof',
    })
  },
  { debounce: IDLE_MS, immediate: true },
)

const sides = computed(() => {
  const scale = LONGEST / Math.max(output.value.width, output.value.height)
  return {
    width: `${Math.max(2, output.value.width * scale)}px`,
    height: `${Math.max(2, output.value.height * scale)}px`,
  }
})
</script>

<template>
  <li>
    <button type="button" class="proof" :class="{ on: isActive }" :aria-pressed="isActive" @click="bench.sizeId = size.id">
      <span class="picture">
        <img v-if="shown" :src="shown.url" :style="sides" alt="" draggable="false" />
      </span>
      <span class="words">
        <b>{{ size.name }}</b>
        <span>{{ output.width }} × {{ output.height }}</span>
        <span class="state">
          <i class="light" :class="{ look: looks }"></i>
          {{ looks ? `${looks} to look at` : 'ready' }}
        </span>
      </span>
    </button>
  </li>
</template>

<style scoped>
.proof {
  display: grid;
  grid-template-columns: 92px minmax(0, 1fr);
  gap: 9px;
  align-items: center;
  width: calc(100% + 12px);
  margin: 0 -6px 4px;
  padding: 6px;
  border: 0;
  border-radius: 5px;
  background: none;
  text-align: left;
}

.proof.on {
  background: #ffffff;
  box-shadow: inset 3px 0 0 var(--clover);
}

.picture {
  display: grid;
  place-items: center;
  min-height: 40px;
}

img {
  outline: 1px solid rgb(30 42 47 / 18%);
  background: repeating-conic-gradient(#cfcfcd 0 25%, #ffffff 0 50%) 0 0 / 8px 8px;
}

b {
  display: block;
  font-weight: 600;
}

.words > span {
  display: block;
  color: var(--ink-soft);
  font-size: 12px;
}

.state .light {
  margin-right: 4px;
}

@media (max-width: 1200px) {
  .proof {
    grid-template-columns: 1fr;
  }
}
</style>
