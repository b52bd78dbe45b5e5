<script setup lang="ts">
import { watchDebounced } from '@vueuse/core'
import { computed, ref } from 'vue'

import type { SizeLaid } from '../../../api/types'
import { isDialogOpen } from '../../../composables/dialogs'
import { useIdle } from '../../../composables/idle'
import { usePictures, type PictureWish } from '../../../composables/pictures'
import { useBench } from '../../../stores/bench'
import { useChecks } from '../../../stores/checks'
import ProofMenu from './ProofMenu.vue'

const props = defineProps<{
  size: SizeLaid
  /** Its place among the sizes, from 0. */
  place: number
  /** CSS pixels to one output pixel. */
  scale: number
  enlarged: boolean
  /** The words below the picture, since that is large. */
  stacked: boolean
}>()

/** Proofs wait until the stage has been idle this long. */
const IDLE_MS = 80
const DRAGGED = 'application/x-lucky-margin-size'

const bench = useBench()
const checks = useChecks()
const isActive = computed(() => props.size.id === bench.sizeId)
const looks = computed(() => checks.looks(props.size.id))
const over = ref(false)

const { shown, ask } = usePictures<PictureWish>(`proof-${props.size.id}`)

watchDebounced(
  () => [bench.stageDrawn, bench.draft?.draft, props.scale, bench.dragging],
  () => {
    if (!bench.draft?.sizes.some(({ id }) => id === props.size.id)) return
    ask({
      draft: bench.draft,
      size_id: props.size.id,
      edit: null,
      view: 'final',
      scale: Math.min(1, props.scale * window.devicePixelRatio),
      region: null,
      place: 'proof',
    })
  },
  { debounce: useIdle(IDLE_MS), immediate: true },
)

const sides = computed(() => ({
  width: `${Math.max(2, props.size.width * props.scale)}px`,
  height: `${Math.max(2, props.size.height * props.scale)}px`,
}))
const state = computed(() => {
  if (!looks.value) return 'ready'
  return looks.value === 1 ? '1 warning' : `${looks.value} warnings`
})

function lift(event: DragEvent): void {
  event.dataTransfer?.setData(DRAGGED, props.size.id)
}

/** A proof dropped on another takes its place. */
async function drop(event: DragEvent): Promise<void> {
  over.value = false
  const id = event.dataTransfer?.getData(DRAGGED)
  if (!id || id === props.size.id) return
  const place = props.place
  await bench.workOn(id)
  await bench.edit({ kind: 'place_size', place })
}
</script>

<template>
  <li
    :class="{ on: isActive, over, stacked }"
    :draggable="!isDialogOpen()"
    @dragstart="lift"
    @dragover.prevent="over = true"
    @dragleave="over = false"
    @drop.stop.prevent="drop"
  >
    <button type="button" class="proof" :aria-pressed="isActive" @click="bench.workOn(size.id)">
      <span class="picture">
        <img v-if="shown" :src="shown.url" :style="sides" alt="" draggable="false" />
        <i v-else :style="sides"></i>
      </span>
      <span class="words">
        <b>{{ size.name }}</b>
        <span>{{ size.on_paper || `${size.width} × ${size.height}` }}<template v-if="size.overridden.includes('window')">, own window</template></span>
        <span v-if="enlarged">enlarged</span>
        <span class="state"><i class="light" :class="{ look: looks }"></i>{{ state }}</span>
      </span>
    </button>
    <ProofMenu v-if="isActive" :place="place" />
  </li>
</template>

<style scoped>
li {
  position: relative;
  margin: 0 -6px 4px;
  border-radius: 5px;
}

li.on {
  background: #ffffff;
  box-shadow: inset 3px 0 0 var(--clover);
}

li.over {
  outline: 2px dashed var(--ink);
}

.proof {
  display: grid;
  grid-template-columns: 92px minmax(0, 1fr);
  gap: 9px;
  align-items: center;
  width: 100%;
  padding: 6px;
  border: 0;
  border-radius: 5px;
  background: none;
  text-align: left;
}

.stacked {
  margin: 0;
}

.stacked .proof {
  grid-template-columns: auto;
}

.picture {
  display: grid;
  place-items: center;
  min-height: 40px;
}

.stacked .picture {
  place-items: start;
}

img,
.picture i {
  outline: 1px solid rgb(30 42 47 / 18%);
}

img {
  background: repeating-conic-gradient(#cfcfcd 0 25%, #ffffff 0 50%) 0 0 / 8px 8px;
}

b {
  display: block;
  padding-right: 14px;
  font-weight: 600;
}

.words > span {
  display: block;
  color: var(--ink-soft);
  font-size: 12px;
}

.state .light {
  margin-right: 5px;
}

@media (max-width: 1200px) {
  .proof {
    grid-template-columns: 1fr;
  }
}
</style>
