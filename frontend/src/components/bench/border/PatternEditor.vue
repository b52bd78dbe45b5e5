<script setup lang="ts">
import { computed, ref } from 'vue'

import type { BandOf, Photo } from '../../../api/types'
import { useBandEdits } from '../../../composables/bandEdits'
import { vRadios } from '../../../composables/radios'
import { useBench } from '../../../stores/bench'
import ChoiceChips from '../../shared/ChoiceChips.vue'
import TickBox from '../../shared/TickBox.vue'
import PicturePicker from '../pieces/PicturePicker.vue'
import TryPicture from '../TryPicture.vue'
import BandColour from './BandColour.vue'

type Pattern = BandOf<'pattern'>['pattern']

const PATTERNS: Pattern[] = [
  'beads', 'bricks', 'chain', 'checks', 'crosses', 'diamonds', 'fans', 'hearts', 'key',
  'leaves', 'ripples', 'scallops', 'slant', 'stars', 'stitches', 'stripes', 'tiles', 'zigzag',
]
const PAPER = '#F5F1E8'
/** How many thicknesses of the band a small picture shows. */
const MOTIFS = 3.5

const bench = useBench()
const { at, bandOf, change, short } = useBandEdits()
const band = computed(() => bandOf('pattern'))
const picture = computed(() => band.value?.picture ?? null)
/** Until one is chosen there is none yet. */
const wantsOwn = ref(false)
const isOwn = computed(() => wantsOwn.value || picture.value !== null)

function turn(own: boolean): void {
  wantsOwn.value = own
  if (!own && picture.value) void bench.edit(change({ picture: null, ground: PAPER }))
}

function lay({ sha256 }: Photo): void {
  void bench.edit({ kind: 'set_band_picture', band: at.value, sha256, only_this_size: bench.onlyThisSize })
}
</script>

<template>
  <template v-if="band">
    <p class="field-label">Pattern</p>
    <ChoiceChips
      label="Pattern from"
      :choices="[
        { key: 'stock', label: 'stock' },
        { key: 'own', label: 'own picture' },
      ]"
      :chosen="isOwn ? 'own' : 'stock'"
      @choose="(key) => turn(key === 'own')"
    />
    <template v-if="isOwn">
      <PicturePicker label="Picture of the pattern" :chosen="picture?.sha256" @choose="lay" />
      <template v-if="picture?.window">
        <p class="field-label">Between the corners</p>
        <ChoiceChips
          label="Between the corners"
          :choices="[
            { key: 'repeat', label: 'repeat' },
            { key: 'stretch', label: 'stretch' },
          ]"
          :chosen="picture.stretch ? 'stretch' : 'repeat'"
          @choose="(key) => bench.edit(change({ picture: { ...picture!, stretch: key === 'stretch' } }))"
        />
      </template>
    </template>
    <template v-else>
      <div v-radios class="patterns" role="radiogroup" aria-label="Pattern">
        <TryPicture
          v-for="pattern in PATTERNS"
          :key="pattern"
          :name="pattern"
          :channel="`pattern-${pattern}`"
          :edit="change({ pattern })"
          :is-on="pattern === band.pattern"
          :corner="MOTIFS * Math.max(...Object.values(band.thickness)) * short"
          @choose="bench.edit(change({ pattern }))"
          @hover="(on) => (bench.tryOut = on ? change({ pattern }) : null)"
        />
      </div>
      <BandColour title="Colour" label="Pattern colour" field="colour" :value="band.colour" />
      <TickBox
        label="Second colour"
        :checked="band.ground !== null"
        @update:checked="bench.edit(change({ ground: $event ? PAPER : null }))"
      />
      <BandColour v-if="band.ground" title="Second colour" label="Second colour of the pattern" field="ground" :value="band.ground" />
    </template>
  </template>
</template>

<style scoped>
.patterns {
  display: grid;
  margin-top: 6px;
  grid-template-columns: repeat(4, 1fr);
  gap: 6px;
}

.tick {
  margin-top: 8px;
}
</style>
