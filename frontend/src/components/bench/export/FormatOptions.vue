<script setup lang="ts">
// What only some formats have.

import { computed } from 'vue'

import type { Edit, ExportChanges } from '../../../api/types'
import { useBench } from '../../../stores/bench'
import ChoiceChips, { type Choice } from '../../shared/ChoiceChips.vue'
import NumberField from '../../shared/NumberField.vue'
import TickBox from '../../shared/TickBox.vue'

type Chroma = NonNullable<ExportChanges['chroma']>

const CHROMAS: Choice<Chroma>[] = [
  { key: 'auto', label: 'by quality' },
  { key: 'full', label: 'full' },
  { key: 'half', label: 'half' },
]

const COLOURS: Choice<string>[] = [
  { key: 'all', label: 'all' },
  ...[256, 128, 64, 32, 16].map((count) => ({ key: String(count), label: String(count) })),
]

const bench = useBench()
const settings = computed(() => bench.here!.export)
const format = computed(() => settings.value.format!)
const colours = computed(() => {
  if (settings.value.colours) return String(settings.value.colours)
  return format.value === 'gif' ? '256' : 'all'
})
const offered = computed(() => COLOURS.filter(({ key }) => key !== 'all' || format.value === 'png'))

function change(changes: ExportChanges): Edit {
  return { kind: 'set_export', changes, only_this_size: bench.onlyThisSize }
}
</script>

<template>
  <template v-if="format === 'png' || format === 'gif'">
    <p class="field-label">Colours <span>fewer are lighter</span></p>
    <ChoiceChips
      label="Colours"
      :choices="offered"
      :chosen="colours"
      @choose="(key) => bench.edit(change({ colours: key === 'all' ? null : Number(key) }))"
    />
  </template>
  <TickBox
    v-if="format === 'webp'"
    label="Lossless"
    :checked="!!settings.lossless"
    @update:checked="(lossless) => bench.edit(change({ lossless }))"
  />
  <template v-if="format === 'jpeg' || format === 'avif' || format === 'pdf'">
    <p class="field-label">Colour detail</p>
    <ChoiceChips
      label="Colour detail"
      :choices="CHROMAS"
      :chosen="settings.chroma ?? 'auto'"
      @choose="(chroma) => bench.edit(change({ chroma }))"
    />
  </template>
  <TickBox
    v-if="format === 'jpeg'"
    label="Progressive"
    :checked="!!settings.progressive"
    @update:checked="(progressive) => bench.edit(change({ progressive }))"
  />
  <div v-if="format === 'pdf'" class="bleed">
    <NumberField
      label="Bleed, millimetres"
      unit="mm"
      :value="settings.bleed ?? 0"
      :min="0"
      :max="20"
      :digits="1"
      @change="(bleed) => bench.edit(change({ bleed }))"
    />
    <span>bleed at each side</span>
  </div>
</template>

<style scoped>
.bleed {
  display: flex;
  gap: 8px;
  align-items: center;
  margin-top: 8px;
  color: var(--ink-soft);
  font-size: 12px;
}
</style>
