<script setup lang="ts">
// This photo under each blend mode, side by side; a click takes one.

import { computed } from 'vue'

import type { BlendMode, Edit, Wash } from '../../../api/types'
import { useBench } from '../../../stores/bench'
import AppDialog from '../../shared/AppDialog.vue'
import TryPicture from '../TryPicture.vue'
import { BLEND_GROUPS, BLEND_NAMES } from '../blends'
import { vRadios } from '../../../composables/radios'

const props = defineProps<{
  wash: Wash
  /** The edit that gives the wash this mode. */
  of: (blend: BlendMode) => Edit
}>()
const open = defineModel<boolean>({ required: true })

const WIDTH = 150

const bench = useBench()
/** So high that the whole picture shows, unless it is very tall or wide. */
const height = computed(() => {
  const { width, height: high } = bench.layout!
  return Math.min(170, Math.max(76, (WIDTH * high) / width))
})

function take(mode: BlendMode): void {
  open.value = false
  if (mode !== props.wash.blend) void bench.edit(props.of(mode))
}
</script>

<template>
  <AppDialog v-model="open" title="This wash in every blend mode" :width="1040">
    <div v-radios class="groups" role="radiogroup" aria-label="Blend mode">
      <section v-for="{ name, modes } in BLEND_GROUPS" :key="name" :style="{ flexGrow: modes.length }">
        <h3>{{ name }}</h3>
        <div class="modes">
          <TryPicture
            v-for="mode in modes"
            :key="mode"
            :name="BLEND_NAMES[mode]"
            :channel="`blend-${mode}`"
            :edit="of(mode)"
            :is-on="mode === wash.blend"
            :height="height"
            @choose="take(mode)"
          />
        </div>
      </section>
    </div>
  </AppDialog>
</template>

<style scoped>
.groups {
  display: flex;
  flex-wrap: wrap;
  gap: 14px 18px;
}

h3 {
  margin-bottom: 5px;
  font: 600 12px var(--text);
  color: var(--ink-soft);
}

.modes {
  display: flex;
  gap: 8px;
}

.modes > * {
  width: 150px;
}
</style>
