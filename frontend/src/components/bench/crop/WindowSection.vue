<script setup lang="ts">
import { computed } from 'vue'

import type { WindowField } from '../../../api/types'
import { useBench } from '../../../stores/bench'
import ChoiceChips from '../../shared/ChoiceChips.vue'
import NumberField from '../../shared/NumberField.vue'
import ResultLook from './ResultLook.vue'

const FIELDS: { field: WindowField; label: string; side: 'left' | 'top' | 'width' | 'height' }[] = [
  { field: 'from_left', label: 'from left', side: 'left' },
  { field: 'from_top', label: 'from top', side: 'top' },
  { field: 'width', label: 'width', side: 'width' },
  { field: 'height', label: 'height', side: 'height' },
]

const bench = useBench()
const layout = computed(() => bench.layout!)
const crop = computed(() => bench.size!.crop)
const follow = { kind: 'set_window', window: null } as const

function whole(of: string): number {
  return of === 'left' || of === 'width' ? layout.value.photo_width : layout.value.photo_height
}
</script>

<template>
  <p class="field-label">
    Window, in photo pixels
    <button v-if="crop.window" type="button" class="link" @click="bench.edit(follow)">
      {{ bench.document!.focus ? 'Follow the focus' : 'Centre it again' }}
    </button>
    <span v-else>{{ bench.document!.focus ? 'follows the focus' : 'centred' }}</span>
  </p>
  <div class="window">
    <NumberField
      v-for="{ field, label, side } in FIELDS"
      :key="field"
      stacked
      :label="label"
      :value="layout.window[side]"
      :min="0"
      :percent="whole(side) / 100"
      @change="(value) => bench.edit({ kind: 'type_window', field, value })"
    />
  </div>
  <ResultLook v-if="bench.size!.pixels.kind !== 'as_cropped'" class="fit">
    <ChoiceChips
      label="Fit"
      :choices="[
        { key: 'cover', label: 'fill the size' },
        { key: 'contain', label: 'show the whole photo' },
      ]"
      :chosen="crop.contain ? 'contain' : 'cover'"
      @choose="(key) => bench.edit({ kind: 'set_contain', contain: key === 'contain' })"
      @hover="(key) => (bench.tryOut = key ? { kind: 'set_contain', contain: key === 'contain' } : null)"
    />
  </ResultLook>
</template>

<style scoped>
.window {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 5px;
}

.fit {
  margin: 7px 0 10px;
}
</style>
