<script setup lang="ts">
// The colours of a mark: one, chosen where it is used, or its own for words, icon and frame, in a
// dark and in a light version.

import { computed } from 'vue'

import type { MarkColours, MarkDesign, MarkShade } from '../../../api/types'
import ColourField from '../../shared/ColourField.vue'
import TickBox from '../../shared/TickBox.vue'

const colours = defineModel<MarkDesign['colours']>({ required: true })

const INK: MarkColours = { words: '#1E2A2F', icon: '#1F6B4B', frame: '#1E2A2F' }
const WHITE: MarkColours = { words: '#FFFFFF', icon: '#F5F1E8', frame: '#FFFFFF' }
const PARTS = [
  { key: 'words', label: 'Words' },
  { key: 'icon', label: 'Icon' },
  { key: 'frame', label: 'Frame and rule' },
] as const
const SHADES: { key: MarkShade; label: string }[] = [
  { key: 'dark', label: 'Dark version, for light pictures' },
  { key: 'light', label: 'Light version, for dark pictures' },
]

const hasOwn = computed({
  get: () => !!colours.value,
  set: (on) => (colours.value = on ? { dark: INK, light: WHITE } : null),
})

function set(shade: MarkShade, part: keyof MarkColours, colour: string): void {
  const now = colours.value!
  colours.value = { ...now, [shade]: { ...now[shade], [part]: colour } }
}
</script>

<template>
  <TickBox v-model:checked="hasOwn" label="Colours of its own, up to three" />
  <template v-if="colours">
    <section v-for="{ key: shade, label } in SHADES" :key="shade">
      <p class="field-label">{{ label }}</p>
      <div v-for="{ key: part, label: name } in PARTS" :key="part" class="row">
        <span>{{ name }}</span>
        <ColourField
          plain
          :label="`${name}, ${shade}`"
          :value="colours[shade][part]"
          :swatches="[]"
          @change="(colour) => set(shade, part, colour)"
        />
      </div>
    </section>
  </template>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 104px 1fr;
  gap: 8px;
  align-items: center;
  margin-bottom: 4px;
  font-size: 12px;
}
</style>
