<script setup lang="ts">
// Finished frames as small pictures of this photo, and own ones that were kept.

import { computed, ref } from 'vue'

import type { Border, Edit, KeptFrame } from '../../../api/types'
import { useBandEdits } from '../../../composables/bandEdits'
import { vRadios } from '../../../composables/radios'
import { useBench } from '../../../stores/bench'
import { useFrames } from '../../../stores/frames'
import FoldSection from '../../shared/FoldSection.vue'
import KeepForm from '../../shared/KeepForm.vue'
import TryPicture from '../TryPicture.vue'

interface Offered {
  key: string
  name: string
  border: Border
  kept?: KeptFrame
}

const NONE: Border = { on: true, bands: [] }

const bench = useBench()
const frames = useFrames()
const { bands, set } = useBandEdits()
const naming = ref(false)

const offered = computed<Offered[]>(() => [
  { key: 'none', name: 'None', border: NONE },
  ...frames.list.own.map((kept) => ({ key: `own-${kept.id}`, name: kept.name, border: kept.border, kept })),
  ...frames.list.stock,
])
const chosen = computed(() => offered.value.find(isChosen))

function isChosen({ border }: Offered): boolean {
  return JSON.stringify(border.bands) === JSON.stringify(bands.value)
}

const take = ({ border }: Offered): Edit => set(border.bands)

async function keep(name: string): Promise<void> {
  naming.value = !(await frames.keep(name, { on: true, bands: bands.value }))
}
</script>

<template>
  <FoldSection title="Frames" :summary="chosen?.name ?? 'your own'">
    <div v-radios class="frames" role="radiogroup" aria-label="Frames">
      <TryPicture
        v-for="one in offered"
        :key="one.key"
        :name="one.name"
        :channel="`frame-${one.key}`"
        :edit="take(one)"
        :is-on="one === chosen"
        :height="58"
        whole
        @choose="bench.edit(take(one))"
        @hover="(on) => (bench.tryOut = on ? take(one) : null)"
      />
    </div>
    <KeepForm v-if="naming" label="Name of this frame" example="Shop frame" @keep="keep" />
    <p class="links">
      <button v-if="chosen?.kept" type="button" class="link" @click="frames.forget(chosen.kept)">
        Remove “{{ chosen.name }}”
      </button>
      <button v-else-if="!chosen" type="button" class="link" @click="naming = !naming">Save this frame</button>
    </p>
  </FoldSection>
</template>

<style scoped>
.frames {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 6px;
}

.links {
  margin-top: 6px;
}
</style>
