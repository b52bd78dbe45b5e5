<script setup lang="ts">
import { computed, ref } from 'vue'

import { useBench } from '../../../stores/bench'
import NumberField from '../../shared/NumberField.vue'
import SizeDialog from '../SizeDialog.vue'

const bench = useBench()
const showSizes = ref(false)
const size = computed(() => bench.size!)
const layout = computed(() => bench.layout!)
const laid = computed(() => bench.draft!.sizes.find(({ id }) => id === bench.sizeId))

/** A typed side fixes the size, or is the side that is fixed already. */
function typeSide(side: 'width' | 'height', value: number): void {
  void bench.edit(({ document, layout }) => {
    const whole = Math.round(value)
    const { pixels, name } = document.sizes.find((one) => one.id === layout.size_id)!
    if (pixels.kind === 'one_side') {
      return { kind: 'set_pixels', pixels: { ...pixels, side, length: whole }, name }
    }
    const { width, height } = layout
    const fixed = { kind: 'fixed' as const, width, height, printed: null, [side]: whole }
    return { kind: 'set_pixels', pixels: fixed, name: 'Own size' }
  })
}
</script>

<template>
  <p class="field-label">
    <b>{{ size.name }}<template v-if="laid?.on_paper">, {{ laid.on_paper }}</template></b>
    <button type="button" class="link" @click="showSizes = true">Choose a size…</button>
  </p>
  <div class="sides">
    <NumberField
      stacked
      label="width, px"
      :value="layout.width"
      :min="1"
      :max="16000"
      :digits="0"
      @change="(value) => typeSide('width', value)"
    />
    <span aria-hidden="true">×</span>
    <NumberField
      stacked
      label="height, px"
      :value="layout.height"
      :min="1"
      :max="16000"
      :digits="0"
      @change="(value) => typeSide('height', value)"
    />
  </div>
  <SizeDialog
    v-model="showSizes"
    title="Another size"
    :without-photo="!bench.document!.photo"
    @choose="(plan) => bench.edit({ kind: 'use_size', plan })"
  />
</template>

<style scoped>
b {
  overflow: hidden;
  color: var(--ink);
  font-weight: 600;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.sides {
  display: grid;
  grid-template-columns: 1fr auto 1fr;
  gap: 6px;
  align-items: center;
}

.link {
  flex: none;
  margin-left: 8px;
}
</style>
