<script setup lang="ts">
// What the treatment that is worked on can be set to.

import { computed } from 'vue'

import { useTreatmentEdits } from '../../../composables/treatmentEdits'
import { useBench } from '../../../stores/bench'
import ChoiceChips from '../../shared/ChoiceChips.vue'
import ColourField from '../../shared/ColourField.vue'
import SliderRow from '../../shared/SliderRow.vue'
import TickBox from '../../shared/TickBox.vue'
import { BORDER_COLOURS } from '../colours'
import { SETTINGS, type Setting } from './numbers'

const bench = useBench()
const { treatment, short, change } = useTreatmentEdits()
const values = computed(() => treatment.value as unknown as Record<string, number & string & boolean>)
/** A joint that is not there has no colour. */
const settings = computed(() =>
  SETTINGS[treatment.value!.kind].filter(({ field }) => field !== 'joint_colour' || values.value.joint),
)

const scaleOf = (setting: Setting) =>
  setting.is === 'length' ? short.value : ((setting.is === 'number' && setting.scale) || 1)
const wordsOf = (words: Record<string, string>) =>
  Object.entries(words).map(([key, label]) => ({ key, label }))
</script>

<template>
  <template v-for="setting in settings" :key="setting.field">
    <template v-if="setting.is === 'words'">
      <p class="field-label">{{ setting.label }}</p>
      <ChoiceChips
        :label="setting.label"
        :choices="wordsOf(setting.words)"
        :chosen="values[setting.field]!"
        @choose="(word) => bench.edit(change({ [setting.field]: word }))"
        @hover="(word) => (bench.tryOut = word ? change({ [setting.field]: word }) : null)"
      />
    </template>
    <TickBox
      v-else-if="setting.is === 'tick'"
      :label="setting.label"
      :checked="values[setting.field]!"
      @update:checked="bench.edit(change({ [setting.field]: $event }))"
    />
    <template v-else-if="setting.is === 'ink' || setting.is === 'colour'">
      <TickBox
        v-if="setting.is === 'ink'"
        :label="setting.label"
        :checked="values[setting.field] !== null"
        @update:checked="bench.edit(change({ [setting.field]: $event ? setting.fresh : null }))"
      />
      <p v-else class="field-label">{{ setting.label }}</p>
      <ColourField
        v-if="values[setting.field]"
        :label="setting.label"
        :value="values[setting.field]!"
        :swatches="BORDER_COLOURS"
        @change="(colour) => bench.edit(change({ [setting.field]: colour }))"
        @hover="(colour) => (bench.tryOut = colour ? change({ [setting.field]: colour }) : null)"
      />
    </template>
    <SliderRow
      v-else
      :label="setting.label"
      :value="values[setting.field]! * scaleOf(setting)"
      :min="(setting.min ?? 0) * scaleOf(setting)"
      :max="setting.is === 'length' ? Math.round(setting.max * short) : setting.max"
      :step="setting.is === 'length' ? 0.5 : 1"
      :digits="setting.is === 'length' && values[setting.field]! * short < 100 ? 1 : 0"
      :unit="setting.is === 'length' ? 'px' : setting.unit"
      :percent="setting.is === 'length' ? short / 100 : undefined"
      @move="(value) => bench.drag(change({ [setting.field]: value / scaleOf(setting) }))"
      @change="(value) => bench.slide(change({ [setting.field]: value / scaleOf(setting) }))"
    />
  </template>
</template>
