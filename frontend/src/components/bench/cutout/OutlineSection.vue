<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Check, Edit, SubjectOutline } from '../../../api/types'
import { useBench } from '../../../stores/bench'
import { useChecks } from '../../../stores/checks'
import ChoiceChips from '../../shared/ChoiceChips.vue'
import ColourField from '../../shared/ColourField.vue'
import SliderRow from '../../shared/SliderRow.vue'
import { BORDER_COLOURS } from '../colours'
import BlendSelect from '../BlendSelect.vue'
import ReadyOutlines from './ReadyOutlines.vue'
import { INK, PLAIN } from './readyOutlines'
import TickBox from '../../shared/TickBox.vue'

const MOST = 5
const LENGTHS = [
  { name: 'width', label: 'Width', least: 0.001 },
  { name: 'gap', label: 'Gap', least: 0 },
] as const
const SHARES = [
  { name: 'softness', label: 'Softness', least: 0, most: 100 },
  { name: 'strength', label: 'Strength', least: 20, most: 400 },
  { name: 'opacity', label: 'Opacity', least: 1, most: 100 },
] as const

const bench = useBench()
const checks = useChecks()
const number = ref(0)
const lines = computed(() => bench.here!.outlines.lines)
const at = computed(() => Math.min(number.value, lines.value.length - 1))
const line = computed(() => lines.value[at.value])
/** Only a soft line has a strength. */
const shares = computed(() => SHARES.filter(({ name }) => name !== 'strength' || line.value!.softness > 0))
const short = computed(() => Math.min(bench.layout!.width, bench.layout!.height))
const warning = computed(() =>
  checks.found.find((check): check is Check => check.key === 'outline' && check.severity === 'warning'),
)

function changeAll(changes: object): Edit {
  return { kind: 'set_outlines', changes, only_this_size: bench.onlyThisSize }
}

function set(now: SubjectOutline[]): Edit {
  return changeAll({ lines: now })
}

function change(fields: Partial<SubjectOutline>): Edit {
  return set(lines.value.map((one, index) => (index === at.value ? { ...one, ...fields } : one)))
}

/** One more, round those that are there. */
function add(): void {
  const reach = Math.max(0, ...lines.value.filter(({ inside }) => !inside).map(({ gap, width }) => gap + width))
  const colour = line.value?.colour === '#FFFFFF' ? INK : '#FFFFFF'
  number.value = 0
  void bench.edit(set([{ ...PLAIN, gap: Math.min(0.2, reach), width: 0.012, colour }, ...lines.value]))
}
</script>

<template>
  <ReadyOutlines
    :lines="lines"
    @choose="(chosen) => bench.edit(set(chosen))"
    @hover="(chosen) => (bench.tryOut = chosen && set(chosen))"
  />
  <p v-if="warning" class="warning">
    {{ warning.text }}
    <button v-if="warning.action" type="button" class="link strong" @click="bench.edit(warning.action.edit as Edit)">
      {{ warning.action.label }}
    </button>
  </p>
  <template v-if="line">
    <div v-if="lines.length > 1" class="which">
      <ChoiceChips
        label="Outline to work on"
        :choices="lines.map((_, index) => ({ key: String(index), label: `${index + 1}` }))"
        :chosen="String(at)"
        @choose="(key) => (number = Number(key))"
      />
    </div>
    <SliderRow
      v-for="row in LENGTHS"
      :key="row.name"
      :label="row.label"
      unit="px"
      :digits="1"
      :step="0.5"
      :value="line[row.name] * short"
      :percent="short / 100"
      :min="row.least * short"
      :max="Math.round(0.12 * short)"
      @move="(px) => bench.drag(change({ [row.name]: px / short }))"
      @change="(px) => bench.slide(change({ [row.name]: px / short }))"
    />
    <SliderRow
      v-for="row in shares"
      :key="row.name"
      :label="row.label"
      :value="100 * line[row.name]"
      :min="row.least"
      :max="row.most"
      @move="(percent) => bench.drag(change({ [row.name]: percent / 100 }))"
      @change="(percent) => bench.slide(change({ [row.name]: percent / 100 }))"
    />
    <p class="field-label">Colour</p>
    <ColourField
      label="Outline colour"
      :value="line.colour"
      :swatches="BORDER_COLOURS"
      @change="(colour) => bench.edit(change({ colour }))"
      @hover="(colour) => (bench.tryOut = colour ? change({ colour }) : null)"
    />
    <div class="last">
      <ChoiceChips
        label="Side of the edge"
        :choices="[
          { key: 'outside', label: 'outside' },
          { key: 'inside', label: 'inside' },
        ]"
        :chosen="line.inside ? 'inside' : 'outside'"
        @choose="(key) => bench.edit(change({ inside: key === 'inside' }))"
      />
      <BlendSelect :blend="line.blend" @choose="(blend) => bench.edit(change({ blend }))" />
    </div>
  </template>
  <TickBox v-if="line?.inside" label="Also along the size's edge" :checked="bench.here!.outlines.along_cuts" @update:checked="bench.edit(changeAll({ along_cuts: $event }))" />
  <p class="links">
    <button v-if="lines.length < MOST" type="button" class="link" @click="add">
      {{ lines.length ? 'Add another outside' : 'Add an outline' }}
    </button>
    <button
      v-if="line"
      type="button"
      class="link"
      @click="bench.edit(set(lines.filter((_, index) => index !== at)))"
    >
      Remove this one
    </button>
  </p>
</template>

<style scoped>
.warning {
  margin-top: 7px;
  padding: 5px 8px;
  border-left: 3px solid var(--honey);
  background: var(--paper);
  font-size: 12px;
}

.tick {
  margin-top: 8px;
}

.which,
.last {
  display: flex;
  gap: 8px;
  margin-top: 8px;
}

.links {
  display: flex;
  gap: 12px;
  margin-top: 8px;
}
</style>
