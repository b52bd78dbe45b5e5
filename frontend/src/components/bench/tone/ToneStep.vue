<script setup lang="ts">
import { computed } from 'vue'

import { post } from '../../../api/client'
import type { Proposal } from '../../../api/types'
import { useToneEdits, type Setting } from '../../../composables/toneEdits'
import { useTips, vTip } from '../../../composables/explanations'
import { useBench } from '../../../stores/bench'
import { useNotices } from '../../../stores/notices'
import { useStage } from '../../../stores/stage'
import FoldSection from '../../shared/FoldSection.vue'
import OverrideNote from '../../shared/OverrideNote.vue'
import AmountFold from './AmountFold.vue'
import AmountRow from './AmountRow.vue'
import AreaSection from './AreaSection.vue'
import CopyTone from './CopyTone.vue'
import CurveEditor from './CurveEditor.vue'
import EndGrips from './EndGrips.vue'
import FadeSection from './FadeSection.vue'
import HistogramStrip from './HistogramStrip.vue'
import HueSection from './HueSection.vue'
import LookSection from './LookSection.vue'
import SuggestedTones from './SuggestedTones.vue'
import WarmthRow from './WarmthRow.vue'
import WashSection from './WashSection.vue'

const LIGHT: Setting[] = ['shadows', 'highlights', 'haze']
const COLOUR: Setting[] = ['tint', 'muted_colours', 'black_and_white']
/** What most photos need, above the folds. */
const MAIN: Setting[] = ['exposure', 'contrast', 'warmth', 'saturation', 'black_point', 'white_point']
const DETAIL: Setting[] = [
  'local_contrast',
  'fine_detail',
  'noise_reduction',
  'colour_noise_reduction',
  'sharpening',
]

const bench = useBench()
const tip = useTips()
const notices = useNotices()
const stage = useStage()
const { tone, change, reset, isSet } = useToneEdits()
const lookWords = computed(() => {
  const look = tone.value.look
  if (!look) return 'none'
  const name = look.kind === 'stock' ? look.key.replace('-', ' ') : look.name
  return `${name}, ${Math.round(look.strength)} %`
})
const counted = (parts: { on: boolean }[]) => (parts.length ? String(parts.length) : 'none')
const curveWords = computed(() => (isSet('curve') ? 'set' : 'straight'))
const fadeWords = computed(() => {
  const { fade, duotone } = tone.value
  const parts = [duotone.strength ? 'two-tone' : '', fade.amount ? `faded ${Math.round(fade.amount)} %` : '']
  return parts.filter(Boolean).join(', ') || 'none'
})

/** Make the settings under which a colour is grey. */
async function neutralise(colour: string): Promise<void> {
  try {
    const proposal = await post<Proposal>('/bench/neutral', { colour })
    if (proposal.edit?.kind === 'set_tone') {
      await bench.edit({ ...proposal.edit, only_this_size: bench.onlyThisSize })
    }
    notices.say(proposal.message)
  } catch (error) {
    notices.tell(error)
  }
}

function pickNeutral(): void {
  stage.pickColour((colour) => void neutralise(colour), 'before')
}
</script>

<template>
  <HistogramStrip />
  <EndGrips />
  <SuggestedTones />
  <p class="links">
    <button v-tip="tip('Pick a neutral')" type="button" class="link" @click="pickNeutral">Pick a neutral</button>
    <button v-if="MAIN.some(isSet)" type="button" class="link" @click="reset(MAIN)">Reset these</button>
  </p>
  <AmountRow name="exposure" />
  <AmountRow name="contrast" />
  <WarmthRow
    :value="tone.warmth"
    @reset="reset(['warmth'])"
    @move="(warmth) => bench.drag(change({ warmth }))"
    @change="(warmth) => bench.slide(change({ warmth }))"
  />
  <AmountRow name="saturation" />
  <AmountFold title="Shadows, highlights, haze" :names="LIGHT" />
  <AmountFold title="More colour" :names="COLOUR" />
  <FoldSection title="Look" :summary="lookWords"><LookSection /></FoldSection>
  <AmountFold title="Sharpness and noise" :names="DETAIL" />
  <FoldSection title="Hues" :summary="isSet('hues') ? 'set' : 'unchanged'"><HueSection /></FoldSection>
  <FoldSection title="Curve" :summary="curveWords"><CurveEditor /></FoldSection>
  <FoldSection title="Areas" :summary="counted(tone.areas)"><AreaSection /></FoldSection>
  <FoldSection title="Washes" :summary="counted(tone.washes)"><WashSection /></FoldSection>
  <FoldSection title="Two-tone and fade" :summary="fadeWords"><FadeSection /></FoldSection>
  <CopyTone />
  <OverrideNote :steps="['tone']" />
</template>

<style scoped>
.links {
  display: flex;
  gap: 14px;
  margin-top: 4px;
  font-size: 12px;
}
</style>
