<script setup lang="ts">
import { computed } from 'vue'

import type { AreaMask, Edit } from '../../../api/types'
import { useTips, vTip } from '../../../composables/explanations'
import { useBench } from '../../../stores/bench'
import { useCutOut } from '../../../stores/cutOut'
import { useFinding } from '../../../stores/finding'
import { useStage } from '../../../stores/stage'
import SliderRow from '../../shared/SliderRow.vue'
import { maskName } from './masks'
import TickBox from '../../shared/TickBox.vue'

interface RangeNumber {
  field: string
  label: string
  max: number
  min?: number
  unit: '%' | '°' | 'px' | ''
}

const props = defineProps<{
  mask: AreaMask
  masks: AreaMask[]
  /** What is masked, its number, and the mask's in it. */
  place: 'area' | 'treatment'
  number: number
  at: number
  isOnly: boolean
  /** The edit that gives it these masks. */
  of: (masks: AreaMask[]) => Edit
}>()

const SOFTNESS: RangeNumber = { field: 'softness', label: 'Softness', max: 100, unit: '%' }
const NUMBERS: Record<AreaMask['kind'], RangeNumber[]> = {
  band: [],
  ellipse: [SOFTNESS],
  light: [
    { field: 'low', label: 'From', max: 100, unit: '' },
    { field: 'high', label: 'To', max: 100, unit: '' },
    SOFTNESS,
  ],
  hue: [
    { field: 'hue', label: 'Hue', max: 360, unit: '°' },
    { field: 'reach', label: 'Range', min: 1, max: 180, unit: '°' },
    SOFTNESS,
  ],
  subject: [
    { field: 'shift', label: 'Shift', min: -0.05, max: 0.05, unit: 'px' },
    { field: 'feather', label: 'Feather', max: 0.2, unit: 'px' },
  ],
}

const bench = useBench()
const tip = useTips()
const cutOut = useCutOut()
const finding = useFinding()
const stage = useStage()
const isRange = computed(() => props.mask.kind === 'light' || props.mask.kind === 'hue')
/** Lengths count in the photo's long sides, and are shown in its pixels. */
const shownScale = (unit: RangeNumber['unit']) => (unit === 'px' ? cutOut.longSide : 1)
const values = computed(() => props.mask as unknown as Record<string, number>)

function set(fields: Record<string, unknown>): Edit {
  const changed = { ...props.mask, ...fields } as AreaMask
  return props.of(props.masks.map((one, at) => (at === props.at ? changed : one)))
}

function pick(): void {
  stage.pickColour((colour) => {
    const { place, number, at: mask } = props
    void bench.edit({ kind: 'pick_for_mask', place, number, mask, colour, only_this_size: bench.onlyThisSize })
  }, 'before')
}

function remove(): void {
  void bench.edit(props.of(props.masks.filter((_, at) => at !== props.at)))
}
</script>

<template>
  <fieldset>
    <legend>{{ maskName(mask) }}</legend>
    <div class="row">
      <TickBox label="Inverted" :checked="mask.inverted" @update:checked="bench.edit(set({ inverted: !mask.inverted }))" />
      <button v-if="isRange" type="button" class="link strong" @click="pick">Pick from the photo</button>
      <button
        v-if="mask.kind === 'subject'"
        v-tip="tip('Find another')"
        type="button"
        class="link strong"
        @click="finding.find({ cutOut: cutOut.isOn })"
      >
        Find another
      </button>
      <button v-if="!isOnly" type="button" class="link" @click="remove">Remove</button>
    </div>
    <SliderRow
      v-for="{ field, label, min, max, unit } in NUMBERS[mask.kind]"
      :key="field"
      :label="label"
      :unit="unit"
      :value="values[field]! * shownScale(unit)"
      :min="Math.round((min ?? 0) * shownScale(unit))"
      :max="Math.round(max * shownScale(unit))"
      @move="(value) => bench.drag(set({ [field]: value / shownScale(unit) }))"
      @change="(value) => bench.slide(set({ [field]: value / shownScale(unit) }))"
    />
    <p v-if="mask.kind === 'subject'" class="hint">
      <button type="button" class="link" @click="bench.openStep = 'cut_out'">Cut-out</button> has brushes to touch it up.
    </p>
  </fieldset>
</template>

<style scoped>
fieldset {
  min-width: 0;
  margin: 4px 0 6px;
  padding: 0 8px 6px;
  border: 1px solid var(--rule);
  border-radius: 4px;
}

legend {
  padding: 0 4px;
  color: var(--ink-soft);
  font-size: 12px;
}

.row {
  display: flex;
  gap: 14px;
  align-items: center;
  font-size: 12px;
}

.tick {
  margin: 0;
}

.hint {
  margin-top: 6px;
  color: var(--ink-soft);
  font-size: 12px;
}

.slider-row {
  grid-template-columns: 58px 1fr 64px;
  margin-top: 2px;
}
</style>
