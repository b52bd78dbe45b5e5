<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Edit, Tone } from '../../../api/types'
import { useToneEdits } from '../../../composables/toneEdits'
import { useBench } from '../../../stores/bench'
import SliderRow from '../../shared/SliderRow.vue'

type Hue = keyof Tone['bands']
type Part = keyof Tone['bands']['red']

/** A colour of each band, at the lightness and strength that all share. */
const HUES: Record<Hue, string> = {
  red: '#d96a62',
  orange: '#cf7f3d',
  yellow: '#a99a2f',
  green: '#5ea95f',
  aqua: '#2aa8a0',
  blue: '#5b93dd',
  purple: '#9b80d8',
  magenta: '#cc6fa6',
}
const PARTS: Part[] = ['hue', 'saturation', 'lightness']

const bench = useBench()
const { tone, change, reset, isSet } = useToneEdits()
const hue = ref<Hue>('red')
const band = computed(() => tone.value.bands[hue.value])

function set(part: Part, value: number): Edit {
  const bands = { ...tone.value.bands, [hue.value]: { ...band.value, [part]: value } }
  return change({ bands })
}

function differs(name: Hue): boolean {
  return Object.values(tone.value.bands[name]).some((value) => value !== 0)
}
</script>

<template>
  <div class="hues" role="group" aria-label="Hue to change">
    <button
      v-for="(colour, name) in HUES"
      :key="name"
      type="button"
      :style="{ background: colour }"
      :class="{ on: name === hue, set: differs(name) }"
      :aria-label="name"
      :aria-pressed="name === hue"
      :title="name"
      @click="hue = name"
    ></button>
  </div>
  <SliderRow
    v-for="part in PARTS"
    :key="part"
    :label="part[0]!.toUpperCase() + part.slice(1)"
    unit=""
    :value="band[part]"
    :min="-100"
    :max="100"
    @move="(value) => bench.drag(set(part, value))"
    @change="(value) => bench.slide(set(part, value))"
  />
  <button v-if="isSet('bands')" type="button" class="link" @click="reset(['bands'])">reset all hues</button>
</template>

<style scoped>
.hues {
  display: grid;
  grid-template-columns: repeat(8, 1fr);
  gap: 4px;
  padding-bottom: 4px;
}

.hues button {
  position: relative;
  height: 26px;
  padding: 0;
  border: 1px solid var(--edge);
  border-radius: 4px;
}

.hues button.on {
  box-shadow:
    0 0 0 2px var(--card),
    0 0 0 4px var(--ink);
}

.hues button.set::after {
  content: '';
  position: absolute;
  inset: auto 4px 3px;
  height: 4px;
  border-radius: 2px;
  background: #ffffff;
}
</style>
