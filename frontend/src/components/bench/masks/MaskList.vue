<script setup lang="ts">
// The masks that narrow an area or a treatment down.

import type { AreaMask, Edit, MaskKind } from '../../../api/types'
import { useBench } from '../../../stores/bench'
import { useFinding } from '../../../stores/finding'
import { MASK_KINDS, MASK_NAMES } from './masks'
import MaskEditor from './MaskEditor.vue'

const props = defineProps<{
  /** What is masked, and its number. */
  place: 'area' | 'treatment'
  number: number
  masks: AreaMask[]
  /** How many have to stay. */
  least: number
  /** The edit that gives it these masks. */
  of: (masks: AreaMask[]) => Edit
}>()

const MOST = 4

const bench = useBench()
const finding = useFinding()

async function narrow(mask: MaskKind): Promise<void> {
  const { place, number } = props
  if (mask === 'subject' && !(await finding.isSubjectKnown())) return
  await bench.edit({ kind: 'add_mask', place, number, mask, only_this_size: bench.onlyThisSize })
}
</script>

<template>
  <MaskEditor
    v-for="(mask, at) in masks"
    :key="`${number}-${at}`"
    :place="place"
    :mask="mask"
    :number="number"
    :at="at"
    :is-only="masks.length <= least"
    :of="of"
    :masks="masks"
  />
  <slot></slot>
  <p v-if="masks.length < MOST" class="narrow">
    Limit to:
    <button v-for="kind in MASK_KINDS" :key="kind" type="button" class="link" @click="narrow(kind)">
      {{ MASK_NAMES[kind] }}
    </button>
  </p>
</template>

<style scoped>
.narrow {
  display: flex;
  flex-wrap: wrap;
  gap: 0 8px;
  align-items: center;
  margin-top: 4px;
  color: var(--ink-soft);
  font-size: 12px;
}
</style>
