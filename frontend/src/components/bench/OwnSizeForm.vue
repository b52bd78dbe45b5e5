<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import { post, Refused } from '../../api/client'
import type { FixedPixels, Printed, SizePlan } from '../../api/types'
import { useLatest } from '../../composables/latest'
import { useNotices } from '../../stores/notices'
import { useSizes } from '../../stores/sizes'
import ChoiceChips from '../shared/ChoiceChips.vue'
import NumberField from '../shared/NumberField.vue'

defineProps<{ bothSides?: boolean }>()
const emit = defineEmits<{ choose: [plan: SizePlan] }>()

type Unit = 'px' | Printed['unit']
type Sides = 'both' | 'width' | 'height'

const UNITS: { key: Unit; label: string }[] = [
  { key: 'px', label: 'px' },
  { key: 'mm', label: 'mm' },
  { key: 'cm', label: 'cm' },
  { key: 'in', label: 'inch' },
]
/** Sides that a fresh form shows, of about the same look in each unit. */
const FIRST: Record<Unit, [number, number]> = { px: [1080, 1350], mm: [100, 80], cm: [10, 8], in: [4, 3] }
const DEFAULT_SEEN = 600
const USUAL_PPI = 300

const notices = useNotices()
const sizes = useSizes()
const unit = ref<Unit>('px')
const given = ref<Sides>('both')
const width = ref(FIRST.px[0])
const height = ref(FIRST.px[1])
const ppi = ref(USUAL_PPI)
const name = ref('')
/** How wide people see it, once that is typed. */
const typedSeen = ref<number | null>(null)
const measured = ref<FixedPixels | null>(null)
const refusal = ref('')

const isPaper = computed(() => unit.value !== 'px')

function chooseUnit(key: Unit): void {
  unit.value = key
  ;[width.value, height.value] = FIRST[key]
  if (key !== 'px') given.value = 'both'
}

const measuring = useLatest<Printed>(async (printed) => {
  try {
    measured.value = await post<FixedPixels>('/sizes/measure', { printed })
    refusal.value = ''
  } catch (error) {
    measured.value = null
    if (error instanceof Refused) refusal.value = error.message
    else notices.tell(error)
  }
})
watch([unit, width, height, ppi], () => {
  if (unit.value === 'px') return
  measuring.ask({ width: width.value, height: height.value, unit: unit.value, ppi: ppi.value })
})

const pixels = computed<SizePlan['pixels'] | null>(() => {
  if (isPaper.value) return measured.value
  const [w, h] = [Math.round(width.value), Math.round(height.value)]
  if (given.value === 'both') return { kind: 'fixed', width: w, height: h, printed: null }
  return { kind: 'one_side', side: given.value, length: given.value === 'width' ? w : h, ratio: null }
})
const comesTo = computed(() => {
  if (!isPaper.value) return given.value === 'both' ? '' : 'The other side follows from the crop.'
  if (refusal.value) return refusal.value
  return measured.value ? `That is ${measured.value.width} × ${measured.value.height} px.` : ''
})

const seen = computed(() => {
  const wide = pixels.value?.kind === 'fixed' ? pixels.value.width : DEFAULT_SEEN
  return typedSeen.value ?? Math.min(DEFAULT_SEEN, wide)
})

function plan(): SizePlan {
  return {
    name: name.value.trim() || 'Own size',
    pixels: pixels.value!,
    shape: { kind: 'rectangle', radius: 0, scale: 1, x: 0.5, y: 0.5 },
    seen_width: Math.round(seen.value),
    covered: [],
    in_column: false,
    overrides: { turn: {}, tone: {}, border: {}, export: {} } as SizePlan['overrides'],
  }
}
</script>

<template>
  <form class="own" @submit.prevent>
    <h3>Your own size</h3>
    <ChoiceChips label="Unit" :choices="UNITS" :chosen="unit" @choose="chooseUnit" />
    <div class="row">
      <NumberField
        v-if="given !== 'height'"
        stacked
        :label="`width, ${unit}`"
        :value="width"
        :min="isPaper ? 0.1 : 1"
        :max="16000"
        :digits="isPaper ? 2 : 0"
        @change="(value) => (width = value)"
      />
      <NumberField
        v-if="given !== 'width'"
        stacked
        :label="`height, ${unit}`"
        :value="height"
        :min="isPaper ? 0.1 : 1"
        :max="16000"
        :digits="isPaper ? 2 : 0"
        @change="(value) => (height = value)"
      />
    </div>
    <ChoiceChips
      v-if="!isPaper && !bothSides"
      label="Given sides"
      :choices="[
        { key: 'both', label: 'both' },
        { key: 'width', label: 'width only' },
        { key: 'height', label: 'height only' },
      ]"
      :chosen="given"
      @choose="(key) => (given = key)"
    />
    <NumberField
      v-else-if="isPaper"
      stacked
      label="resolution, pixels per inch"
      :value="ppi"
      :min="10"
      :max="2400"
      :digits="0"
      @change="(value) => (ppi = value)"
    />
    <p aria-live="polite" :class="{ refused: refusal && isPaper }">{{ comesTo }}</p>
    <NumberField
      stacked
      label="displayed width, px"
      :value="seen"
      :min="1"
      :max="16000"
      :digits="0"
      @change="(value) => (typedSeen = value)"
    />
    <label>
      <span class="field-label">Name</span>
      <input v-model="name" class="text-field" maxlength="120" placeholder="Own size" />
    </label>
    <div class="buttons">
      <button type="button" class="action key" :disabled="!pixels" @click="emit('choose', plan())">
        Use this size
      </button>
      <button type="button" class="action" :disabled="!pixels" @click="sizes.save(plan())">
        Save for reuse
      </button>
    </div>
  </form>
</template>

<style scoped>
h3 {
  margin-bottom: 8px;
}

.row {
  display: grid;
  grid-auto-columns: 1fr;
  grid-auto-flow: column;
  gap: 6px;
  margin: 8px 0;
}

p {
  min-height: 18px;
  margin-top: 8px;
  color: var(--ink-soft);
  font-size: 12px;
}

.refused {
  color: var(--persimmon);
}

.buttons {
  display: flex;
  gap: 8px;
  margin-top: 12px;
}
</style>
