<script setup lang="ts">
// A size as it is now, drawn once the stage is; it says so while it has not caught up.

import { computed, onScopeDispose, watch } from 'vue'

import type { SizeLaid } from '../../../api/types'
import { usePictures, type PictureWish } from '../../../composables/pictures'
import { whenStageRests } from '../../../composables/stageRest'
import { useBench } from '../../../stores/bench'
import { useProofs } from '../../../stores/proofs'

const props = defineProps<{
  size: SizeLaid
  /** CSS pixels to one output pixel. */
  scale: number
  /** Tells the pictures of a size apart that are shown at a time. */
  channel: string
}>()

const IDLE_MS = 80

const bench = useBench()
const { shown, ask } = usePictures<PictureWish>(`${props.channel}-${props.size.id}`)

whenStageRests(
  () => [bench.draft?.draft, props.scale],
  (draft) => {
    if (!draft.sizes.some(({ id }) => id === props.size.id)) return
    ask({
      draft,
      size_id: props.size.id,
      edit: null,
      view: 'final',
      scale: Math.min(1, props.scale * window.devicePixelRatio),
      region: null,
      place: 'proof',
    })
  },
  IDLE_MS,
)

if (props.channel === 'proof') {
  const { urls } = useProofs()
  const { id } = props.size
  // At once, since the address before it is no longer any good.
  watch(shown, (now) => now && urls.set(id, now.url), { flush: 'sync' })
  onScopeDispose(() => urls.delete(id))
}

const sides = computed(() => ({
  width: `${Math.max(2, props.size.width * props.scale)}px`,
  height: `${Math.max(2, props.size.height * props.scale)}px`,
}))
const isBehind = computed(() => shown.value?.wish.draft.draft !== bench.draft?.draft)
</script>

<template>
  <span class="proof-picture" :class="{ behind: isBehind }">
    <img v-if="shown" :src="shown.url" :style="sides" alt="" draggable="false" />
    <i v-else :style="sides"></i>
    <span v-if="isBehind" class="note">updating…</span>
  </span>
</template>

<style scoped>
.proof-picture {
  position: relative;
  display: inline-grid;
  place-items: center;
}

img,
i {
  outline: 1px solid rgb(30 42 47 / 18%);
}

img {
  background: repeating-conic-gradient(#cfcfcd 0 25%, #ffffff 0 50%) 0 0 / 8px 8px;
}

/* Only what takes long is told of. */
.note {
  position: absolute;
  bottom: 3px;
  padding: 1px 5px;
  border-radius: 3px;
  background: rgb(30 42 47 / 78%);
  color: #ffffff;
  font-size: 11px;
  white-space: nowrap;
  animation: appear 0s 0.7s backwards;
}

@keyframes appear {
  from {
    visibility: hidden;
  }
}
</style>
