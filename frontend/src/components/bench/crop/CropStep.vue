<script setup lang="ts">
import { computed } from 'vue'

import type { Photo } from '../../../api/types'
import { useBench } from '../../../stores/bench'
import FoldSection from '../../shared/FoldSection.vue'
import FocusSection from './FocusSection.vue'
import GroundField from './GroundField.vue'
import RatioSection from './RatioSection.vue'
import ResultLook from './ResultLook.vue'
import ShapeSection from './ShapeSection.vue'
import SizeSection from './SizeSection.vue'
import TrimSection from './TrimSection.vue'
import TurnSection from './TurnSection.vue'
import WindowSection from './WindowSection.vue'
import { GROUND_WORDS, shapeWords } from './words'

defineProps<{ photo: Photo | null }>()

const bench = useBench()
const document = computed(() => bench.document!)
const turn = computed(() => bench.here!.turn)
const turnWords = computed(() => {
  const degrees = 90 * turn.value.quarters + turn.value.straighten
  const parts = [turn.value.mirrored ? 'mirrored' : '', degrees ? `${Number(degrees.toFixed(2))}°` : '']
  return parts.filter(Boolean).join(', ') || 'as taken'
})
const focusWords = computed(() => {
  if (!document.value.focus) return 'none: the middle'
  return document.value.focus.box ? 'a box' : 'a point'
})
const groundWords = computed(
  () => `${GROUND_WORDS[document.value.backdrop.kind]} / ${GROUND_WORDS[document.value.outside.kind]}`,
)
</script>

<template>
  <SizeSection />
  <RatioSection />
  <WindowSection />
  <FoldSection title="Turn" :summary="turnWords"><TurnSection /></FoldSection>
  <FoldSection title="Shape" :summary="shapeWords(bench.size!.shape)"><ShapeSection /></FoldSection>
  <FoldSection title="Focus" :summary="focusWords"><FocusSection /></FoldSection>
  <FoldSection title="Grounds" :summary="groundWords">
    <ResultLook>
      <GroundField label="Backdrop" hint="behind the photo" place="backdrop" :ground="document.backdrop" />
      <GroundField label="Outside" hint="outside the shape" place="outside" :ground="document.outside" />
    </ResultLook>
  </FoldSection>
  <FoldSection title="Trim" summary="a plain margin"><TrimSection /></FoldSection>
</template>
