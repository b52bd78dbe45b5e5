<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Edit, Tone } from '../../../api/types'
import { useToneEdits } from '../../../composables/toneEdits'
import { useBench } from '../../../stores/bench'
import SliderRow from '../../shared/SliderRow.vue'
import HueRing, { type Hue } from './HueRing.vue'

type Part = keyof Tone['hues']['red']

const PARTS: { part: Part; label: string; most: number; unit: '°' | '' }[] = [
  { part: 'turn', label: 'Turn', most: 30, unit: '°' },
  { part: 'strength', label: 'Strength', most: 100, unit: '' },
  { part: 'lightness', label: 'Lightness', most: 100, unit: '' },
]

const bench = useBench()
const { tone, change, reset, isSet } = useToneEdits()
const hue = ref<Hue>('red')
const shift = computed(() => tone.value.hues[hue.value])

function set(part: Part, value: number): Edit {
  return change({ hues: { ...tone.value.hues, [hue.value]: { ...shift.value, [part]: value } } })
}
</script>

<template>
  <HueRing v-model="hue" />
  <p class="field-label">{{ hue[0]!.toUpperCase() + hue.slice(1) }}</p>
  <SliderRow
    v-for="{ part, label, most, unit } in PARTS"
    :key="part"
    :label="label"
    :unit="unit"
    :value="shift[part]"
    :min="-most"
    :max="most"
    @reset="bench.edit(set(part, 0))"
    @move="(value) => bench.drag(set(part, value))"
    @change="(value) => bench.slide(set(part, value))"
  />
  <button v-if="isSet('hues')" type="button" class="link" @click="reset(['hues'])">Reset all hues</button>
</template>
