<script setup lang="ts">
// The size in hand as a house style would make it.

import { watchDebounced } from '@vueuse/core'

import type { HouseStyle, PartKey } from '../../../api/types'
import { usePictures, type PictureWish } from '../../../composables/pictures'
import { useBench } from '../../../stores/bench'

const props = defineProps<{ styleShown: HouseStyle; put: PartKey[] }>()

const SIDE = 250
const PAUSE_MS = 120

const bench = useBench()
const { shown, ask } = usePictures<PictureWish>('style-preview')

watchDebounced(
  () => [props.styleShown, props.put, bench.draft],
  () => {
    if (!bench.draft) return
    const { width, height } = bench.layout!
    ask({
      draft: bench.draft,
      size_id: bench.sizeId,
      // The size stays the one in hand, so that both can be compared.
      edit: { kind: 'use_style', style: props.styleShown, put: props.put.filter((key) => key !== 'sizes'), light: null, subjects: [] },
      view: 'final',
      scale: Math.min(1, (SIDE * window.devicePixelRatio) / Math.max(width, height)),
      region: null,
      place: 'proof',
      rough: true,
    })
  },
  { debounce: PAUSE_MS, immediate: true },
)
</script>

<template>
  <figure>
    <img v-if="shown" :src="shown.url" :alt="`This picture in “${styleShown.name}”`" />
  </figure>
</template>

<style scoped>
figure {
  display: grid;
  place-items: center;
  min-height: 250px;
  margin: 0;
  background: var(--surround-mid);
}

img {
  max-width: 100%;
  max-height: 320px;
}
</style>
