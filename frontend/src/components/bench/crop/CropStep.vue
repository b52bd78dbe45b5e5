<script setup lang="ts">
import { computed } from 'vue'

import type { Photo } from '../../../api/types'
import { useBench } from '../../../stores/bench'
import FoldSection from '../../shared/FoldSection.vue'
import OverrideNote from '../../shared/OverrideNote.vue'
import CoveredSection from './CoveredSection.vue'
import FocusSection from './FocusSection.vue'
import GroundField from './GroundField.vue'
import PhotoSection from './PhotoSection.vue'
import RatioSection from './RatioSection.vue'
import ResultLook from './ResultLook.vue'
import ShapeSection from './ShapeSection.vue'
import SizeSection from './SizeSection.vue'
import SquareSection from './SquareSection.vue'
import TrimSection from './TrimSection.vue'
import TurnSection from './TurnSection.vue'
import WindowSection from './WindowSection.vue'
import { GROUND_WORDS, shapeWords } from './words'

defineProps<{ photo: Photo | null }>()

const bench = useBench()
const hasPhoto = computed(() => !!bench.document!.photo)
const turn = computed(() => bench.here!.turn)
const turnWords = computed(() => {
  const degrees = 90 * turn.value.quarters + turn.value.straighten
  const parts = [turn.value.mirrored ? 'mirrored' : '', degrees ? `${Number(degrees.toFixed(2))}°` : '']
  return parts.filter(Boolean).join(', ') || 'as taken'
})
const focusWords = computed(() => {
  if (!bench.document!.focus) return 'none, centred'
  return bench.document!.focus.box ? 'a box' : 'a point'
})
const coveredWords = computed(() => bench.size!.covered.map(({ name }) => name).join(', ') || 'none')
const groundWords = computed(
  () => `${GROUND_WORDS[bench.here!.backdrop.kind]} / ${GROUND_WORDS[bench.here!.outside.kind]}`,
)
</script>

<template>
  <SizeSection />
  <RatioSection />
  <WindowSection v-if="hasPhoto" />
  <FoldSection v-if="hasPhoto" title="Turn" :summary="turnWords"><TurnSection /></FoldSection>
  <FoldSection title="Shape" :summary="shapeWords(bench.size!.shape)"><ShapeSection /></FoldSection>
  <FoldSection v-if="hasPhoto" title="Focus" :summary="focusWords"><FocusSection /></FoldSection>
  <FoldSection title="Backgrounds" :summary="groundWords">
    <ResultLook>
      <GroundField label="Backdrop" hint="behind the photo" place="backdrop" :ground="bench.here!.backdrop" />
      <GroundField label="Outside" hint="outside the shape" place="outside" :ground="bench.here!.outside" />
      <OverrideNote :steps="['backdrop', 'outside']" />
    </ResultLook>
  </FoldSection>
  <FoldSection title="Covered zones" :summary="coveredWords"><CoveredSection /></FoldSection>
  <FoldSection v-if="hasPhoto" title="Square up" :summary="bench.document!.photo?.square ? 'squared up' : 'off'">
    <SquareSection />
  </FoldSection>
  <FoldSection v-if="hasPhoto" title="Trim" summary="plain margins"><TrimSection /></FoldSection>
  <FoldSection title="Photo" :summary="photo?.name ?? 'none'"><PhotoSection /></FoldSection>
</template>
