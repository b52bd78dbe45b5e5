<script setup lang="ts">
// Parts of the photo raised over their own toned-down base.

import { computed } from 'vue'

import type { Lift, Shape } from '../../../api/types'
import { useLiftEdits } from '../../../composables/liftEdits'
import { useBench } from '../../../stores/bench'
import { useFinding } from '../../../stores/finding'
import ChoiceChips from '../../shared/ChoiceChips.vue'
import ColourField from '../../shared/ColourField.vue'
import SliderRow from '../../shared/SliderRow.vue'
import TickBox from '../../shared/TickBox.vue'
import { BORDER_COLOURS } from '../colours'
import { SHAPE_WORDS } from '../crop/words'
import ShapeChoice from '../ShapeChoice.vue'

const MOST = 20
const FIRST: Shape = { kind: 'rectangle', radius: 0, scale: 1, x: 0.5, y: 0.5 }
const SHADOW: NonNullable<Lift['shadow']> = { x: 0, y: 0.008, blur: 0.012, colour: '#000000', opacity: 0.5 }
const SHADOW_LENGTHS = [
  { name: 'x', label: 'Across', least: -0.05 },
  { name: 'y', label: 'Down', least: -0.05 },
  { name: 'blur', label: 'Softness', least: 0 },
] as const

const bench = useBench()
const finding = useFinding()
const { lifted, base, at, lift, change, changeBase, work, add, remove, move } = useLiftEdits()

const short = computed(() => Math.min(bench.layout!.width, bench.layout!.height))
const region = computed(() => (lift.value?.region.kind === 'shape' ? lift.value.region : null))
const nameOf = ({ region: of }: Lift) => (of.kind === 'subject' ? 'the subject' : SHAPE_WORDS[of.shape.kind])
const choices = computed(() =>
  lifted.value.map((one, index) => ({
    key: String(index),
    label: `${index + 1} ${nameOf(one)}${one.on ? '' : ' (off)'}`,
  })),
)

async function addSubject(): Promise<void> {
  if (await finding.isSubjectKnown()) await add(null)
}

const withShadow = (fields: Partial<typeof SHADOW>) => change({ shadow: { ...SHADOW, ...lift.value!.shadow, ...fields } })
</script>

<template>
  <div @pointerdown.capture="work()" @focusin="work()">
    <p v-if="lifted.length < MOST" class="add">
      <button type="button" class="action" @click="add(FIRST)">Lift a part</button>
      <button type="button" class="action" @click="addSubject">Lift the subject</button>
    </p>
    <template v-if="lift">
      <ChoiceChips
        v-if="lifted.length > 1"
        label="Lift to work on"
        :choices="choices"
        :chosen="String(at)"
        @choose="(key) => work(Number(key))"
      />
      <p class="links">
        <TickBox label="On" :checked="lift.on" @update:checked="bench.edit(change({ on: !lift.on }))" />
        <button v-if="at > 0" type="button" class="link" @click="move(-1)">Lower</button>
        <button v-if="at < lifted.length - 1" type="button" class="link" @click="move(1)">Higher</button>
        <button type="button" class="link" @click="remove">Remove</button>
      </p>
      <ShapeChoice
        v-if="region"
        :shape="region.shape"
        :of="(shape) => change({ region: { ...region!, shape } })"
      />
      <SliderRow
        label="Edge"
        :value="lift.edge * short"
        :max="Math.round(short * 0.05)"
        unit="px"
        :percent="short / 100"
        :step="0.5"
        :digits="1"
        @move="(px) => bench.drag(change({ edge: px / short }))"
        @change="(px) => bench.slide(change({ edge: px / short }))"
      />
      <template v-if="lift.edge">
        <p class="field-label">Edge colour</p>
        <ColourField
          label="Edge colour"
          :value="lift.edge_colour"
          :swatches="BORDER_COLOURS"
          @change="(colour) => bench.edit(change({ edge_colour: colour }))"
          @hover="(colour) => (bench.tryOut = colour ? change({ edge_colour: colour }) : null)"
        />
      </template>
      <SliderRow
        label="Tilt"
        :value="lift.tilt"
        :min="-45"
        :max="45"
        :step="0.5"
        :digits="1"
        unit="°"
        @reset="bench.edit(change({ tilt: 0 }))"
        @move="(tilt) => bench.drag(change({ tilt }))"
        @change="(tilt) => bench.slide(change({ tilt }))"
      />
      <SliderRow
        label="Enlarged to"
        :value="lift.size * 100"
        :min="20"
        :max="300"
        @reset="bench.edit(change({ size: 1 }))"
        @move="(percent) => bench.drag(change({ size: percent / 100 }))"
        @change="(percent) => bench.slide(change({ size: percent / 100 }))"
      />
      <TickBox
        label="Shadow"
        :checked="lift.shadow !== null"
        @update:checked="bench.edit(change({ shadow: $event ? SHADOW : null }))"
      />
      <template v-if="lift.shadow">
        <SliderRow
          v-for="{ name, label, least } in SHADOW_LENGTHS"
          :key="name"
          :label="label"
          :value="lift.shadow[name] * short"
          :min="Math.round(least * short)"
          :max="Math.round(0.05 * short)"
          unit="px"
          :percent="short / 100"
          @move="(px) => bench.drag(withShadow({ [name]: px / short }))"
          @change="(px) => bench.slide(withShadow({ [name]: px / short }))"
        />
        <SliderRow
          label="Darkness"
          :value="lift.shadow.opacity * 100"
          :max="100"
          @move="(percent) => bench.drag(withShadow({ opacity: percent / 100 }))"
          @change="(percent) => bench.slide(withShadow({ opacity: percent / 100 }))"
        />
      </template>
      <fieldset>
        <legend>Under all lifts</legend>
        <SliderRow
          label="Grey"
          :value="base.grey * 100"
          :max="100"
          @move="(percent) => bench.drag(changeBase({ grey: percent / 100 }))"
          @change="(percent) => bench.slide(changeBase({ grey: percent / 100 }))"
        />
        <SliderRow
          label="Lightness"
          :value="base.light * 100"
          :min="-100"
          :max="100"
          @reset="bench.edit(changeBase({ light: 0 }))"
          @move="(percent) => bench.drag(changeBase({ light: percent / 100 }))"
          @change="(percent) => bench.slide(changeBase({ light: percent / 100 }))"
        />
        <SliderRow
          label="Blur"
          :value="base.blur * short"
          :max="Math.round(0.1 * short)"
          unit="px"
          :percent="short / 100"
          :step="0.5"
          :digits="1"
          @move="(px) => bench.drag(changeBase({ blur: px / short }))"
          @change="(px) => bench.slide(changeBase({ blur: px / short }))"
        />
      </fieldset>
    </template>
  </div>
</template>

<style scoped>
.add {
  display: flex;
  gap: 6px;
}

.links {
  display: flex;
  gap: 14px;
  align-items: center;
  margin: 6px 0;
  font-size: 12px;
}

.links .tick {
  margin: 0;
}

fieldset {
  min-width: 0;
  margin: 8px 0 4px;
  padding: 0 8px 6px;
  border: 1px solid var(--rule);
  border-radius: 4px;
}

legend {
  padding: 0 4px;
  color: var(--ink-soft);
  font-size: 12px;
}
</style>
