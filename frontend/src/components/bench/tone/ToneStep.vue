<script setup lang="ts">
import { computed, ref } from 'vue'

import { post } from '../../../api/client'
import type { Proposal } from '../../../api/types'
import { useToneEdits, type Setting } from '../../../composables/toneEdits'
import { useBench } from '../../../stores/bench'
import { useNotices } from '../../../stores/notices'
import { useStage } from '../../../stores/stage'
import FoldSection from '../../shared/FoldSection.vue'
import OverrideNote from '../../shared/OverrideNote.vue'
import AmountRow from './AmountRow.vue'
import AreaSection from './AreaSection.vue'
import CopyTone from './CopyTone.vue'
import CurveEditor from './CurveEditor.vue'
import EndGrips from './EndGrips.vue'
import FadeSection from './FadeSection.vue'
import HistogramStrip from './HistogramStrip.vue'
import HueSection from './HueSection.vue'
import LookSection from './LookSection.vue'
import WarmthRow from './WarmthRow.vue'
import WashSection from './WashSection.vue'

const BRIGHTNESS: Setting[] = ['exposure', 'contrast', 'shadows', 'highlights']
const ENDS: Setting[] = ['black_point', 'white_point']
const COLOUR: Setting[] = ['tint', 'saturation', 'muted_colours', 'black_and_white']
const DETAIL: Setting[] = [
  'local_contrast',
  'fine_detail',
  'noise_reduction',
  'colour_noise_reduction',
  'sharpening',
]

const bench = useBench()
const notices = useNotices()
const stage = useStage()
const { tone, change, reset, isSet } = useToneEdits()
const looking = ref(false)
const lookWords = computed(() => {
  const look = tone.value.look
  if (!look) return 'none'
  const name = look.kind === 'stock' ? look.key.replace('-', ' ') : look.name
  return `${name}, ${Math.round(look.strength)} %`
})
const counted = (parts: { on: boolean }[]) => (parts.length ? String(parts.length) : 'none')
const hueWords = computed(() => (isSet('hues') ? 'set' : 'as they are'))
const curveWords = computed(() => (isSet('curve') ? 'set' : 'straight'))
const brightness: Setting[] = [...BRIGHTNESS, ...ENDS]
const colour: Setting[] = ['warmth', ...COLOUR]
const fadeWords = computed(() => {
  const { fade, duotone } = tone.value
  const parts = [duotone.strength ? 'two colours' : '', fade.amount ? `faded ${Math.round(fade.amount)} %` : '']
  return parts.filter(Boolean).join(', ') || 'none'
})

/** Make the settings that the service finds. */
async function make(finding: Promise<Proposal>): Promise<void> {
  looking.value = true
  try {
    const proposal = await finding
    if (proposal.edit?.kind === 'set_tone') {
      await bench.edit({ ...proposal.edit, only_this_size: bench.onlyThisSize })
    }
    notices.say(proposal.message)
  } catch (error) {
    notices.tell(error)
  } finally {
    looking.value = false
  }
}

const propose = () => make(bench.ask<Proposal>('/bench/auto'))

function pickNeutral(): void {
  stage.pickColour((colour) => void make(post<Proposal>('/bench/neutral', { colour })), 'before')
}
</script>

<template>
  <HistogramStrip />
  <EndGrips />
  <p class="field-label">
    <b>Brightness</b>
    <span class="links">
      <button type="button" class="link strong" :disabled="looking" @click="propose">
        {{ looking ? 'measuring…' : 'propose' }}
      </button>
      <button v-if="brightness.some(isSet)" type="button" class="link" @click="reset(brightness)">
        reset brightness
      </button>
    </span>
  </p>
  <AmountRow v-for="name in BRIGHTNESS" :key="name" :name="name" />
  <p class="field-label">
    <b>Colour</b>
    <span class="links">
      <button
        type="button"
        class="link strong"
        title="Click something in the photo that ought to be grey or white"
        @click="pickNeutral"
      >
        pick a neutral
      </button>
      <button v-if="colour.some(isSet)" type="button" class="link" @click="reset(colour)">reset colour</button>
    </span>
  </p>
  <WarmthRow
    :value="tone.warmth"
    @reset="reset(['warmth'])"
    @move="(warmth) => bench.drag(change({ warmth }))"
    @change="(warmth) => bench.slide(change({ warmth }))"
  />
  <AmountRow v-for="name in COLOUR" :key="name" :name="name" />
  <FoldSection title="Look" :summary="lookWords"><LookSection /></FoldSection>
  <FoldSection title="Sharpness and noise" :summary="DETAIL.some(isSet) ? 'set' : 'as it is'">
    <AmountRow v-for="name in DETAIL" :key="name" :name="name" />
    <button v-if="DETAIL.some(isSet)" type="button" class="link" @click="reset(DETAIL)">reset these</button>
  </FoldSection>
  <FoldSection title="Hues" :summary="hueWords"><HueSection /></FoldSection>
  <FoldSection title="Curve" :summary="curveWords"><CurveEditor /></FoldSection>
  <FoldSection title="Areas" :summary="counted(tone.areas)"><AreaSection /></FoldSection>
  <FoldSection title="Washes" :summary="counted(tone.washes)"><WashSection /></FoldSection>
  <FoldSection title="Two colours and fade" :summary="fadeWords"><FadeSection /></FoldSection>
  <CopyTone />
  <OverrideNote :steps="['tone']" />
</template>

<style scoped>
b {
  color: var(--ink);
  font-weight: 600;
}

.links {
  display: flex;
  gap: 12px;
}
</style>
