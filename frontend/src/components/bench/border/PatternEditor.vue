<script setup lang="ts">
import { computed } from 'vue'

import type { BandOf } from '../../../api/types'
import { useBandEdits } from '../../../composables/bandEdits'
import { vRadios } from '../../../composables/radios'
import { useBench } from '../../../stores/bench'
import TickBox from '../../shared/TickBox.vue'
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
const { bandOf, change, short } = useBandEdits()
const band = computed(() => bandOf('pattern'))
</script>

<template>
  <template v-if="band">
    <p class="field-label">Pattern</p>
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

<style scoped>
.patterns {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 6px;
}

.tick {
  margin-top: 8px;
}
</style>
