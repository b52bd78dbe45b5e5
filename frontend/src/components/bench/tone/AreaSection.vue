<script setup lang="ts">
import { computed } from 'vue'

import type { Area, Edit, MaskKind } from '../../../api/types'
import { useToneParts } from '../../../composables/toneParts'
import { useBench } from '../../../stores/bench'
import { useCutOut } from '../../../stores/cutOut'
import { useFinding } from '../../../stores/finding'
import { useStage } from '../../../stores/stage'
import ChoiceChips from '../../shared/ChoiceChips.vue'
import SliderRow from '../../shared/SliderRow.vue'
import { MASK_KINDS, MASK_NAMES, maskName } from '../masks/masks'
import MaskList from '../masks/MaskList.vue'
import { READY_AREAS } from './readyAreas'
import WarmthRow from './WarmthRow.vue'
import TickBox from '../../shared/TickBox.vue'

type Control = Exclude<keyof Area, 'on' | 'name' | 'strength' | 'masks' | 'warmth'>

const CONTROLS: Control[] = [
  'exposure',
  'contrast',
  'shadows',
  'highlights',
  'tint',
  'saturation',
  'muted_colours',
]
const NEUTRAL = 6500

const bench = useBench()
const cutOut = useCutOut()
const finding = useFinding()
const stage = useStage()
const { parts, number, part, take, set, remove, add } = useToneParts('area')

const choices = computed(() =>
  parts.value.map((area, at) => ({ key: String(at), label: `${at + 1} ${nameOf(area)}` })),
)

function nameOf({ masks, on }: Area): string {
  const name = masks.map(maskName).join(' in ')
  return on ? name : `${name} (off)`
}

const ready = Object.keys(READY_AREAS).map((key) => ({ key, label: key }))
/** Behind a cut-out subject, areas show only where the photo itself does. */
const isUnseen = computed(
  () =>
    cutOut.isOn &&
    bench.here!.backdrop.kind !== 'this_photo' &&
    !!part.value?.masks.some(({ kind, inverted }) => kind === 'subject' && inverted),
)

function areaUnder(mask: MaskKind, inverted = false, settings = {}): Edit {
  return { kind: 'add_area', mask, inverted, settings, only_this_size: bench.onlyThisSize }
}

const readyArea = (key: string) => areaUnder('subject', true, READY_AREAS[key])

async function addArea(mask: MaskKind): Promise<void> {
  if (mask !== 'subject' || (await finding.isSubjectKnown())) await add(areaUnder(mask))
}

async function addReady(key: string): Promise<void> {
  bench.tryOut = null
  if (await finding.isSubjectKnown()) await add(readyArea(key))
}

const label = (control: Control) => control[0]!.toUpperCase() + control.slice(1).replace('_', ' ')
</script>

<template>
  <div @pointerdown.capture="take()" @focusin="take()">
    <p class="field-label">Ready-made</p>
    <ChoiceChips
      actions
      label="Ready-made areas"
      :choices="ready"
      :chosen="null"
      @choose="addReady"
      @hover="(key) => (bench.tryOut = key === null ? null : readyArea(key))"
    />
    <p class="field-label">Change only part of the photo</p>
    <div class="kinds">
      <button v-for="kind in MASK_KINDS" :key="kind" type="button" class="action" @click="addArea(kind)">
        {{ MASK_NAMES[kind] }}
      </button>
    </div>
    <template v-if="part">
      <ChoiceChips
        v-if="parts.length > 1"
        class="several"
        label="Area to work on"
        :choices="choices"
        :chosen="String(number)"
        @choose="(key) => take(Number(key))"
      />
      <div class="head">
        <TickBox label="On" :checked="part.on" @update:checked="bench.edit(set({ on: !part.on }))" />
        <TickBox v-model:checked="stage.showsMask" label="Show mask" />
        <button type="button" class="link" @click="remove">Remove area</button>
      </div>
      <MaskList place="area" :number="number" :masks="part.masks" :least="1" :of="(masks) => set({ masks })">
        <p v-if="isUnseen" class="unseen">
          The photo behind the cut-out subject doesn't show here. Choose “this photo” as the background to see it.
        </p>
      </MaskList>
      <SliderRow
        v-for="control in CONTROLS"
        :key="control"
        :label="label(control)"
        unit=""
        :value="part[control]"
        :min="control === 'exposure' ? -5 : -100"
        :max="control === 'exposure' ? 5 : 100"
        :step="control === 'exposure' ? 0.05 : 1"
        :digits="control === 'exposure' ? 2 : 0"
        @reset="bench.edit(set({ [control]: 0 }))"
        @move="(value) => bench.drag(set({ [control]: value }))"
        @change="(value) => bench.slide(set({ [control]: value }))"
      />
      <WarmthRow
        :value="part.warmth"
        @reset="bench.edit(set({ warmth: NEUTRAL }))"
        @move="(warmth) => bench.drag(set({ warmth }))"
        @change="(warmth) => bench.slide(set({ warmth }))"
      />
      <SliderRow
        label="Strength"
        :value="part.strength"
        :max="100"
        @move="(strength) => bench.drag(set({ strength }))"
        @change="(strength) => bench.slide(set({ strength }))"
      />
    </template>
  </div>
</template>

<style scoped>
.kinds {
  display: grid;
  grid-template-columns: repeat(5, auto);
  gap: 5px;
}

.kinds .action {
  padding: 4px 6px;
  font-size: 12px;
}

.several {
  margin-top: 9px;
}

.head {
  display: flex;
  flex-wrap: wrap;
  gap: 0 14px;
  align-items: center;
  margin-top: 4px;
  font-size: 12px;
}

.head .tick {
  margin-top: 0;
}

.head .link {
  margin-left: auto;
}

.unseen {
  margin-top: 4px;
  color: var(--ink-soft);
  font-size: 12px;
}

.slider-row {
  margin-top: 3px;
}
</style>
