<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Wash } from '../../../api/types'
import { useToneParts } from '../../../composables/toneParts'
import { useBench } from '../../../stores/bench'
import ChoiceChips from '../../shared/ChoiceChips.vue'
import SliderRow from '../../shared/SliderRow.vue'
import BlendDialog from './BlendDialog.vue'
import { BLEND_NAMES } from '../blends'
import BlendSelect from '../BlendSelect.vue'
import StopList from './StopList.vue'
import TickBox from '../../shared/TickBox.vue'

const FORMS: { key: Wash['form']; label: string }[] = [
  { key: 'linear', label: 'linear' },
  { key: 'radial', label: 'radial' },
]

const bench = useBench()
const { parts, number, part, take, set, remove, add } = useToneParts('wash')
const comparing = ref(false)

const choices = computed(() =>
  parts.value.map(({ on, blend }, at) => ({
    key: String(at),
    label: `${at + 1} ${BLEND_NAMES[blend]}${on ? '' : ' (off)'}`,
  })),
)
</script>

<template>
  <div @pointerdown.capture="take()" @focusin="take()">
    <p class="field-label">
      A colour gradient blended over the photo
      <button
        type="button"
        class="link strong"
        @click="add({ kind: 'add_wash', only_this_size: bench.onlyThisSize })"
      >
        Add a wash
      </button>
    </p>
    <template v-if="part">
      <ChoiceChips
        v-if="parts.length > 1"
        label="Wash to work on"
        :choices="choices"
        :chosen="String(number)"
        @choose="(key) => take(Number(key))"
      />
      <div class="head">
        <TickBox label="On" :checked="part.on" @update:checked="bench.edit(set({ on: !part.on }))" />
        <button type="button" class="link" @click="remove">Remove wash</button>
      </div>
      <ChoiceChips
        label="Form"
        :choices="FORMS"
        :chosen="part.form"
        @choose="(form) => bench.edit(set({ form }))"
      />
      <StopList :stops="part.stops" :of="(stops) => set({ stops })" />
      <SliderRow
        label="Extent"
        :value="part.reach"
        :max="100"
        @reset="bench.edit(set({ reach: 100 }))"
        @move="(reach) => bench.drag(set({ reach }))"
        @change="(reach) => bench.slide(set({ reach }))"
      />
      <SliderRow
        label="Opacity"
        :value="part.opacity"
        :max="100"
        @move="(opacity) => bench.drag(set({ opacity }))"
        @change="(opacity) => bench.slide(set({ opacity }))"
      />
      <div class="blend">
        <span>Blend</span>
        <BlendSelect :blend="part.blend" @choose="(blend) => bench.edit(set({ blend }))" />
        <button type="button" class="action" @click="comparing = true">Try them all</button>
      </div>
      <BlendDialog v-model="comparing" :wash="part" :of="(blend) => set({ blend })" />
    </template>
  </div>
</template>

<style scoped>
.head {
  display: flex;
  justify-content: space-between;
  align-items: center;
  font-size: 12px;
}

.tick {
  margin: 0;
}

.slider-row {
  margin-top: 3px;
}

.blend {
  display: grid;
  grid-template-columns: auto 1fr auto;
  gap: 8px;
  align-items: center;
  margin-top: 6px;
  font-size: 12px;
}
</style>
