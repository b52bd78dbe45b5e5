<script setup lang="ts">
// A font and one of its weights.

import { computed } from 'vue'

import type { TextPiece } from '../../api/types'
import { useFonts } from '../../stores/fonts'
import ChoiceChips from './ChoiceChips.vue'
import FontPicker from './FontPicker.vue'

type Family = TextPiece['family']

defineProps<{
  /** What the fonts are shown with. */
  words: string
}>()
const family = defineModel<Family>('family', { required: true })
const weight = defineModel<number>('weight', { required: true })
const emit = defineEmits<{ hoverFamily: [key: Family | null]; hoverWeight: [weight: number | null] }>()

const WEIGHTS: Record<number, string> = { 400: 'regular', 700: 'bold', 900: 'heavy' }

const fonts = useFonts()
const weights = computed(() =>
  (fonts.named(family.value)?.weights ?? []).map((one) => ({ key: String(one), label: WEIGHTS[one] ?? String(one) })),
)
</script>

<template>
  <FontPicker
    :family="family"
    :weight="weight"
    :words="words"
    @choose="(key) => (family = key)"
    @hover="(key) => emit('hoverFamily', key)"
  />
  <ChoiceChips
    v-if="weights.length > 1"
    class="weights"
    label="Weight"
    :choices="weights"
    :chosen="String(weight)"
    @choose="(one) => (weight = Number(one))"
    @hover="(one) => emit('hoverWeight', one === null ? null : Number(one))"
  />
</template>

<style scoped>
.weights {
  margin-top: 7px;
}
</style>
