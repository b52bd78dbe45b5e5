<script setup lang="ts">
import { computed } from 'vue'

import { useTips, vTip } from '../../../composables/explanations'
import { useBench } from '../../../stores/bench'
import { useChecks } from '../../../stores/checks'
import { useCutOut, type Look } from '../../../stores/cutOut'
import { useFinding } from '../../../stores/finding'
import ChoiceChips, { type Choice } from '../../shared/ChoiceChips.vue'
import FoldSection from '../../shared/FoldSection.vue'
import OverrideNote from '../../shared/OverrideNote.vue'
import GroundField from '../crop/GroundField.vue'
import { GROUND_WORDS } from '../crop/words'
import BrushSection from './BrushSection.vue'
import EdgeSection from './EdgeSection.vue'
import KeepSubject from './KeepSubject.vue'
import OutlineSection from './OutlineSection.vue'
import PlacingSection from './PlacingSection.vue'
import ShadowSection from './ShadowSection.vue'

const LOOKS: Choice<Look>[] = [
  { key: 'final', label: 'finished' },
  { key: 'subject', label: 'on checks' },
  { key: 'dimmed', label: 'over the photo' },
  { key: 'coverage', label: 'black and white' },
]

const bench = useBench()
const tip = useTips()
const checks = useChecks()
const cutOut = useCutOut()
const finding = useFinding()

const doubt = computed(
  () => checks.found.find(({ key, severity }) => key === 'subject' && severity === 'warning')?.text,
)
const boxWords = computed(() => {
  if (cutOut.drawsBox === 'more') return 'Drag across another subject.'
  return 'Drag across the subject, a little wider than it is.'
})
const lines = computed(() => bench.here!.outlines.lines)
const shadowWords = computed(() => {
  const { cast, contact, own } = bench.here!.subject_shadow
  const parts = [cast ? 'cast' : '', contact ? 'contact' : '', own ? 'from the photo' : '']
  return parts.filter(Boolean).join(', ') || 'none'
})
const edge = computed(() => bench.document!.cut_out.edge)
const edgeWords = computed(() => {
  const { shift, softness, soft_hair: softHair } = edge.value
  const moved = shift > 0 ? 'moved out' : shift < 0 ? 'moved in' : ''
  const parts = [moved, softness ? 'softened' : '', softHair ? '' : 'hair sharp']
  return parts.filter(Boolean).join(', ') || 'as found'
})

</script>

<template>
  <div class="buttons">
    <button type="button" class="action" :class="{ key: !cutOut.isOn }" :disabled="finding.isFinding" @click="finding.find()">
      {{ cutOut.isOn ? 'Find again' : 'Find the subject' }}
    </button>
    <button
      v-tip="tip('Draw a box')"
      type="button"
      class="action"
      :aria-pressed="cutOut.drawsBox === 'one'"
      @click="cutOut.drawBox('one')"
    >
      Draw a box
    </button>
    <button
      v-if="cutOut.isOn"
      v-tip="tip('Add a box')"
      type="button"
      class="action"
      :aria-pressed="cutOut.drawsBox === 'more'"
      @click="cutOut.drawBox('more')"
    >
      Add a box
    </button>
  </div>
  <p v-if="cutOut.drawsBox" class="message">{{ boxWords }}</p>
  <p v-else-if="!cutOut.isOn && bench.document!.cut_out.boxes.length" class="message">
    The subject is found, but not cut out. Switch this step on to see it.
  </p>
  <p v-else-if="!cutOut.isOn" class="message">
    Finds the subject, cuts it out and puts it on another background. A brush touches up what was missed.
  </p>
  <template v-else>
    <p v-if="doubt" class="doubt" role="status">{{ doubt }}</p>
    <p class="field-label">View</p>
    <ChoiceChips
      label="View"
      :choices="LOOKS"
      :chosen="cutOut.look"
      @choose="(look) => (cutOut.chosenLook = look)"
    />
    <BrushSection />
    <FoldSection title="Edge" :summary="edgeWords"><EdgeSection /></FoldSection>
    <FoldSection title="Outlines" :summary="lines.length ? String(lines.length) : 'none'" starts-open>
      <OutlineSection />
    </FoldSection>
    <FoldSection title="Shadow" :summary="shadowWords"><ShadowSection /></FoldSection>
    <FoldSection title="Background" :summary="GROUND_WORDS[bench.here!.backdrop.kind]" starts-open>
      <GroundField label="Background" hint="behind the subject" place="backdrop" :ground="bench.here!.backdrop" />
    </FoldSection>
    <FoldSection title="Position" summary="drag, Alt + wheel"><PlacingSection /></FoldSection>
    <KeepSubject />
    <OverrideNote :steps="['cut_out', 'outlines', 'subject_shadow', 'backdrop']" />
  </template>
</template>

<style scoped>
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-top: 8px;
}

.message {
  margin-top: 7px;
  color: var(--ink-soft);
  font-size: 12px;
}

.doubt {
  margin-top: 8px;
  padding: 5px 8px;
  border-left: 3px solid var(--honey);
  background: var(--paper);
  font-size: 12px;
}
</style>
