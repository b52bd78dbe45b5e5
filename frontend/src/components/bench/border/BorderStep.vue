<script setup lang="ts">
import { computed, onMounted } from 'vue'

import type { BandKind, Edit } from '../../../api/types'
import { useBandEdits } from '../../../composables/bandEdits'
import { useBench } from '../../../stores/bench'
import { useFrames } from '../../../stores/frames'
import ChoiceChips, { type Choice } from '../../shared/ChoiceChips.vue'
import OverrideNote from '../../shared/OverrideNote.vue'
import SliderRow from '../../shared/SliderRow.vue'
import BandThickness from './BandThickness.vue'
import BrushedEditor from './BrushedEditor.vue'
import FrameSection from './FrameSection.vue'
import LineEditor from './LineEditor.vue'
import MatEditor from './MatEditor.vue'
import PatternEditor from './PatternEditor.vue'

const MOST = 3
const KINDS: Choice<BandKind>[] = [
  { key: 'line', label: 'line' },
  { key: 'mat', label: 'mat' },
  { key: 'pattern', label: 'pattern' },
  { key: 'brushed', label: 'brushed edge' },
]
const EDITORS = { line: LineEditor, mat: MatEditor, pattern: PatternEditor, brushed: BrushedEditor }

const bench = useBench()
const frames = useFrames()
const { number, bands, at, band, change, become, add, removeBand } = useBandEdits()
const editor = computed(() => EDITORS[band.value?.kind ?? 'line'])
/** Numbered from the outside. */
const which = computed(() =>
  bands.value.map(({ kind }, index) => ({ key: String(index), label: `${index + 1} ${kind}` })),
)

onMounted(frames.load)

function tryOut(edit: Edit | null): void {
  bench.tryOut = edit
}
</script>

<template>
  <FrameSection />
  <template v-if="frames.list.fresh.length">
    <template v-if="bands.length > 1">
      <p class="field-label">Band, from the outside</p>
      <ChoiceChips
        label="Band to work on"
        :choices="which"
        :chosen="String(at)"
        @choose="(key) => (number = Number(key))"
      />
    </template>
    <p class="field-label">Kind</p>
    <ChoiceChips
      label="Kind"
      :choices="KINDS"
      :chosen="band?.kind ?? null"
      @choose="(kind) => kind !== band?.kind && bench.edit(become(kind))"
      @hover="(kind) => tryOut(kind && kind !== band?.kind ? become(kind) : null)"
    />
    <BandThickness />
    <component :is="editor" />
    <SliderRow
      v-if="band"
      label="Opacity"
      :value="band.opacity * 100"
      :max="100"
      @move="(percent) => bench.drag(change({ opacity: percent / 100 }))"
      @change="(percent) => bench.slide(change({ opacity: percent / 100 }))"
    />
    <template v-if="band && band.kind !== 'brushed'">
      <p class="field-label">Position</p>
      <ChoiceChips
        label="Position"
        :choices="[
          { key: 'inside', label: 'over the photo' },
          { key: 'around', label: 'around the photo' },
        ]"
        :chosen="band.around ? 'around' : 'inside'"
        @choose="(key) => bench.edit(change({ around: key === 'around' }))"
        @hover="(key) => tryOut(key ? change({ around: key === 'around' }) : null)"
      />
    </template>
    <p v-if="band" class="links">
      <button v-if="bands.length < MOST" type="button" class="link" @click="add">Add a band inside</button>
      <button type="button" class="link" @click="removeBand">Remove this band</button>
    </p>
  </template>
  <OverrideNote :steps="['border']" />
</template>

<style scoped>
.links {
  display: flex;
  gap: 14px;
  margin-top: 8px;
}
</style>
