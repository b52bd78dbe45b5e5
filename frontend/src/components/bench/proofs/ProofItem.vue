<script setup lang="ts">
import { computed, ref } from 'vue'

import type { SizeLaid } from '../../../api/types'
import { isDialogOpen } from '../../../composables/dialogs'
import { useBench } from '../../../stores/bench'
import { useChecks } from '../../../stores/checks'
import ProofMenu from './ProofMenu.vue'
import ProofPicture from './ProofPicture.vue'

const props = defineProps<{
  size: SizeLaid
  /** Its place among the sizes, from 0. */
  place: number
  /** CSS pixels to one output pixel. */
  scale: number
  enlarged: boolean
}>()

const DRAGGED = 'application/x-lucky-margin-size'

const bench = useBench()
const checks = useChecks()
const isActive = computed(() => props.size.id === bench.sizeId)
const looks = computed(() => checks.looks(props.size.id))
const over = ref(false)

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
    :class="{ on: isActive, over }"
    :draggable="!isDialogOpen()"
    @dragstart="lift"
    @dragover.prevent="over = true"
    @dragleave="over = false"
    @drop.stop.prevent="drop"
  >
    <button type="button" class="proof" :aria-pressed="isActive" @click="bench.workOn(size.id)">
      <span class="picture">
        <ProofPicture :size="size" :scale="scale" channel="proof" />
      </span>
      <span class="words">
        <b>{{ size.name }}</b>
        <span>{{ size.on_paper || `${size.width}\u00a0×\u00a0${size.height}` }}<template v-if="size.overridden.includes('window')">, own crop</template></span>
        <span v-if="enlarged">enlarged</span>
        <span class="state"><i class="check-light" :class="{ look: looks }"></i>{{ state }}</span>
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
  grid-template-columns: calc(var(--longest) + 4px) minmax(0, 1fr);
  gap: 5px;
  align-items: center;
  width: 100%;
  padding: 6px;
  border: 0;
  border-radius: 5px;
  background: none;
  text-align: left;
}

/* Its menu stands beside it. */
li.on .proof {
  width: calc(100% - 28px);
}

.picture {
  display: grid;
  place-items: center;
  min-height: 40px;
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

.state .check-light {
  margin-right: 5px;
}

@media (max-width: 1200px) {
  .proof {
    grid-template-columns: 1fr;
  }
}
</style>
