<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Edit } from '../../../api/types'
import { readRatio } from '../../../composables/numbers'
import { useBench } from '../../../stores/bench'
import ChoiceChips, { type Choice } from '../../shared/ChoiceChips.vue'

const RATIOS = ['1:1', '4:5', '9:16', '3:2', '16:9', '3:1']
const SAME = 0.002

const bench = useBench()
const typed = ref<string | null>(null)
const isBad = ref(false)

const size = computed(() => bench.size!)
const photoRatio = computed(() => bench.layout!.photo_width / bench.layout!.photo_height)
const choices = computed<Choice<string>[]>(() => [
  { key: 'free', label: 'free' },
  ...(bench.document!.photo ? [{ key: 'original', label: 'original', ratio: photoRatio.value }] : []),
  ...RATIOS.map((label) => ({ key: label, label, ratio: ratioOf(label) })),
])
const held = computed(() => {
  const pixels = size.value.pixels
  if (pixels.kind === 'fixed') return pixels.printed ?? pixels
  return pixels.ratio
})
const chosen = computed(() => {
  if (!held.value) return 'free'
  const ratio = held.value.width / held.value.height
  const same = (other: number) => Math.abs(ratio / other - 1) < SAME
  return RATIOS.find((label) => same(ratioOf(label))) ?? (same(photoRatio.value) ? 'original' : null)
})
/** What the typed field shows: the ratio that is held, when no chip says it. */
const shown = computed(() => {
  if (typed.value !== null) return typed.value
  return held.value && !chosen.value ? inLowestTerms(held.value.width, held.value.height) : ''
})

/** `1200:630` is told as `40:21`; a ratio of odd numbers, such as `7:9.5`, as it is. */
function inLowestTerms(width: number, height: number): string {
  if (!Number.isInteger(width) || !Number.isInteger(height)) return `${width}:${height}`
  let [divisor, rest] = [width, height]
  while (rest) [divisor, rest] = [rest, divisor % rest]
  return `${width / divisor}:${height / divisor}`
}

function ratioOf(label: string): number {
  const [width, height] = label.split(':').map(Number)
  return width! / height!
}

function ratioEdit(key: string): Edit {
  if (key === 'free') return { kind: 'choose_ratio', ratio: null }
  if (key === 'original') return { kind: 'choose_ratio', ratio: 'original' }
  const [width, height] = key.split(':').map(Number)
  return { kind: 'choose_ratio', ratio: { width: width!, height: height! } }
}

function commit(): void {
  if (typed.value === null || typed.value.trim() === '') {
    typed.value = null
    isBad.value = false
    return
  }
  const ratio = readRatio(typed.value)
  isBad.value = !ratio
  if (!ratio) return
  typed.value = null
  void bench.edit({ kind: 'choose_ratio', ratio })
}

function leave(): void {
  commit()
  typed.value = null
  isBad.value = false
}

function swap(): void {
  const pixels = size.value.pixels
  if (pixels.kind === 'fixed') {
    const printed = pixels.printed && {
      ...pixels.printed,
      width: pixels.printed.height,
      height: pixels.printed.width,
    }
    const swapped = { kind: 'fixed' as const, width: pixels.height, height: pixels.width, printed }
    void bench.edit({ kind: 'set_pixels', pixels: swapped, name: size.value.name })
  } else if (pixels.ratio) {
    const ratio = { width: pixels.ratio.height, height: pixels.ratio.width }
    void bench.edit({ kind: 'choose_ratio', ratio })
  }
}
</script>

<template>
  <p class="field-label">
    Ratio
    <button type="button" class="link" :disabled="!held" @click="swap">Swap sides</button>
  </p>
  <div class="ratios">
    <ChoiceChips
      label="Ratio"
      :choices="choices"
      :chosen="chosen"
      @choose="(key) => bench.edit(ratioEdit(key))"
      @hover="(key) => (bench.tryOut = key ? ratioEdit(key) : null)"
    >
      <input
        class="other"
        :class="{ on: !chosen }"
        aria-label="Other ratio"
        placeholder="7:9.5"
        autocomplete="off"
        :value="shown"
        :aria-invalid="isBad"
        :title="isBad ? 'Two numbers with a colon are needed, such as 7:9.5.' : 'Any other ratio'"
        @input="typed = ($event.target as HTMLInputElement).value"
        @keydown.enter.prevent="commit"
        @keydown.escape.stop="typed = null"
        @blur="leave"
      />
    </ChoiceChips>
  </div>
</template>

<style scoped>
.other {
  width: 76px;
  min-height: 26px;
  padding: 3px 7px;
  border: 1px dashed var(--edge);
  border-radius: 4px;
  background: #ffffff;
  font-size: 12px;
}

.other.on {
  border: 1px solid var(--clover);
  box-shadow: inset 0 0 0 1px var(--clover);
  background: var(--clover-pale);
  font-weight: 600;
}

.other[aria-invalid='true'] {
  border: 1px solid var(--persimmon);
  box-shadow: inset 0 0 0 1px var(--persimmon);
}
</style>
