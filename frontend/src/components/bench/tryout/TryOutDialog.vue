<script setup lang="ts">
// The try-out: the very file that would be saved, in made-up places where people may come upon it.

import { computed, ref, watch } from 'vue'

import { useBench } from '../../../stores/bench'
import AppDialog from '../../shared/AppDialog.vue'
import ChoiceChips from '../../shared/ChoiceChips.vue'
import { placeFor, PLACES, type PlaceKey } from './places'

const open = defineModel<boolean>({ required: true })

/** Of a size that is not measured on paper. */
const USUAL_PPI = 300

const bench = useBench()
const place = ref<PlaceKey>('feed')
const light = ref<'light' | 'dark'>('light')
const sizeId = ref('')
/** The revision whose files are shown. */
const revision = ref<number | null>(null)

const sizes = computed(() => bench.draft?.sizes ?? [])
const size = computed(() => sizes.value.find(({ id }) => id === sizeId.value))
const document = computed(() => bench.document?.sizes.find(({ id }) => id === sizeId.value))
const ppi = computed(() => {
  const { pixels } = document.value!
  return (pixels.kind === 'fixed' && pixels.printed?.ppi) || USUAL_PPI
})
const source = computed(() =>
  revision.value && size.value
    ? `/api/finishes/${bench.saved!.id}/weighed?revision=${revision.value}&size_id=${sizeId.value}`
    : '',
)

watch(open, async (now) => {
  revision.value = null
  if (!now || !(await bench.settle())) return
  show(bench.sizeId)
  revision.value = bench.saved!.revision
})

/** Another size, in the place that it is likely meant for. */
function show(id: string): void {
  sizeId.value = id
  if (size.value && document.value) place.value = placeFor(size.value, document.value)
}
</script>

<template>
  <AppDialog v-model="open" title="Try-out" :width="900">
    <div class="choices">
      <label>
        <span class="visually-hidden">Size to try out</span>
        <select class="text-field" :value="sizeId" @change="show(($event.target as HTMLSelectElement).value)">
          <option v-for="one in sizes" :key="one.id" :value="one.id">{{ one.name }}</option>
        </select>
      </label>
      <ChoiceChips label="Place" :choices="PLACES" :chosen="place" @choose="(key) => (place = key)" />
      <ChoiceChips
        label="Light"
        :choices="[
          { key: 'light', label: 'light' },
          { key: 'dark', label: 'dark' },
        ]"
        :chosen="light"
        @choose="(key) => (light = key)"
      />
    </div>
    <div class="room" :class="light" tabindex="0" role="group" aria-label="Made-up place">
      <component
        :is="PLACES.find(({ key }) => key === place)!.component"
        v-if="source && size"
        :source="source"
        :name="bench.document!.name"
        :size="size"
        :ppi="ppi"
      />
    </div>
    <p class="soft">
      These places are made up. The picture in them is the file as it would be saved, byte for byte.
    </p>
  </AppDialog>
</template>

<style scoped>
.choices {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 18px;
  align-items: center;
  margin-bottom: 10px;
}

.soft {
  margin-top: 8px;
  color: var(--ink-soft);
  font-size: 12px;
}

/* Surroundings of no place in particular: greys, and bars for words. */
.room {
  --ground: #eceae6;
  --leaf: #ffffff;
  --bar: #d6d3cd;
  --words: #2b2b2a;

  display: grid;
  height: 58vh;
  padding: 20px;
  overflow: auto;
  background: var(--ground);
  color: var(--words);
}

.room.dark {
  --ground: #191918;
  --leaf: #262625;
  --bar: #454442;
  --words: #ecebe7;
}
</style>
