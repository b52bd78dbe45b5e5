<script setup lang="ts">
import type { Edit, Stop } from '../../../api/types'
import { useBench } from '../../../stores/bench'
import ColourField from '../../shared/ColourField.vue'
import NumberField from '../../shared/NumberField.vue'
import SliderRow from '../../shared/SliderRow.vue'

const props = defineProps<{
  stops: Stop[]
  /** The edit that gives the wash these colours. */
  of: (stops: Stop[]) => Edit
}>()

const FEWEST = 2
const MOST = 5

const bench = useBench()

function set(at: number, fields: Partial<Stop>): Edit {
  return props.of(props.stops.map((stop, place) => (place === at ? { ...stop, ...fields } : stop)))
}

/** A colour keeps its place between the ones beside it. */
const least = (at: number) => (at ? 100 * props.stops[at - 1]!.at : 0)
const most = (at: number) => (at < props.stops.length - 1 ? 100 * props.stops[at + 1]!.at : 100)

/** One more colour, in the middle of the widest gap, to be changed from there. */
function add(): void {
  const gaps = props.stops.slice(1).map((stop, at) => stop.at - props.stops[at]!.at)
  const widest = gaps.indexOf(Math.max(...gaps))
  const before = props.stops[widest]!
  const stop = { ...before, at: before.at + gaps[widest]! / 2 }
  void bench.edit(props.of([...props.stops.slice(0, widest + 1), stop, ...props.stops.slice(widest + 1)]))
}

function remove(at: number): void {
  void bench.edit(props.of(props.stops.filter((_, place) => place !== at)))
}
</script>

<template>
  <div v-for="(stop, at) in stops" :key="at" class="stop">
    <ColourField
      :label="`Colour ${at + 1}`"
      :value="stop.colour"
      :swatches="[]"
      @change="(colour) => bench.edit(set(at, { colour }))"
    />
    <NumberField
      unit="%"
      :label="`Place of colour ${at + 1}, %`"
      :value="100 * stop.at"
      :min="least(at)"
      :max="most(at)"
      @change="(value) => bench.edit(set(at, { at: value / 100 }))"
    />
    <button
      type="button"
      class="remove"
      :disabled="stops.length <= FEWEST"
      :aria-label="`Remove colour ${at + 1}`"
      @click="remove(at)"
    >
      ×
    </button>
    <SliderRow
      label="Depth of colour"
      :value="stop.richer"
      :max="100"
      @reset="bench.edit(set(at, { richer: 0 }))"
      @move="(richer) => bench.drag(set(at, { richer }))"
      @change="(richer) => bench.slide(set(at, { richer }))"
    />
  </div>
  <button v-if="stops.length < MOST" type="button" class="link" @click="add">Add a colour</button>
</template>

<style scoped>
.stop {
  display: grid;
  grid-template-columns: 1fr 62px 24px;
  gap: 0 6px;
  align-items: center;
  margin-top: 8px;
}

.stop .slider-row {
  grid-column: 1 / -1;
  margin-top: 0;
}

.remove {
  width: 24px;
  height: 28px;
  padding: 0;
  border: 0;
  background: none;
  color: var(--ink-soft);
  font-size: 16px;
}

.remove:disabled {
  visibility: hidden;
}
</style>
