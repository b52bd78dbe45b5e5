<script setup lang="ts">
import type { Edit, Tone } from '../../../api/types'
import { useToneEdits } from '../../../composables/toneEdits'
import { useBench } from '../../../stores/bench'
import ChoiceChips from '../../shared/ChoiceChips.vue'
import ColourField from '../../shared/ColourField.vue'
import SliderRow from '../../shared/SliderRow.vue'
import { GROUND_COLOURS } from '../colours'

const bench = useBench()
const { tone, change } = useToneEdits()

const duotone = (fields: Partial<Tone['duotone']>): Edit =>
  change({ duotone: { ...tone.value.duotone, ...fields } })
const fade = (fields: Partial<Tone['fade']>): Edit => change({ fade: { ...tone.value.fade, ...fields } })
</script>

<template>
  <SliderRow
    label="Two-tone"
    :value="tone.duotone.strength"
    :max="100"
    @move="(strength) => bench.drag(duotone({ strength }))"
    @change="(strength) => bench.slide(duotone({ strength }))"
  />
  <div v-if="tone.duotone.strength" class="colours">
    <ColourField
      label="Colour of the shadows"
      :value="tone.duotone.dark"
      :swatches="[]"
      @change="(dark) => bench.edit(duotone({ dark }))"
    />
    <ColourField
      label="Colour of the highlights"
      :value="tone.duotone.light"
      :swatches="[]"
      @change="(light) => bench.edit(duotone({ light }))"
    />
  </div>
  <SliderRow
    label="Fade"
    :value="tone.fade.amount"
    :max="100"
    @move="(amount) => bench.drag(fade({ amount }))"
    @change="(amount) => bench.slide(fade({ amount }))"
  />
  <div v-if="tone.fade.amount" class="colours">
    <ChoiceChips
      label="Fade towards"
      :choices="[
        { key: 'colour', label: 'a colour' },
        { key: 'transparent', label: 'transparent' },
      ]"
      :chosen="tone.fade.colour ? 'colour' : 'transparent'"
      @choose="(key) => bench.edit(fade({ colour: key === 'colour' ? '#FFFFFF' : null }))"
    />
    <ColourField
      v-if="tone.fade.colour"
      label="Fade colour"
      :value="tone.fade.colour"
      :swatches="GROUND_COLOURS"
      @change="(colour) => bench.edit(fade({ colour }))"
    />
  </div>
</template>

<style scoped>
.colours {
  display: grid;
  gap: 6px;
  margin-top: 7px;
}
</style>
