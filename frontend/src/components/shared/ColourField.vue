<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import { useBench } from '../../stores/bench'
import { useStage } from '../../stores/stage'
import { useSwatches } from '../../stores/swatches'
import { vRadios } from '../../composables/radios'
import { lookingAt } from '../../composables/lookingAt'

const props = defineProps<{
  value: string
  label: string
  swatches: { name: string; colour: string }[]
  /** Only typed, or chosen of those that are used: for a dialog, which covers the picture. */
  plain?: boolean
}>()
const emit = defineEmits<{ change: [colour: string]; hover: [colour: string | null] }>()

const MOST_MORE = 9

const bench = useBench()
const stage = useStage()
const offered = useSwatches()
/** Colours beside those given: of the photo, of a house style, then used in this finish, then chosen lately. */
const more = computed(() => {
  const used = JSON.stringify(bench.document ?? {}).match(/#[0-9A-F]{6}/g) ?? []
  const groups = [
    { colours: offered.ofPhoto, name: 'of the photo' },
    ...offered.ofStyles.map(({ name, colours }) => ({ colours, name: `house style ${name}` })),
    { colours: used, name: 'used in this finish' },
    { colours: offered.recent, name: 'recent' },
  ]
  const named = new Map<string, string>()
  for (const { name, colours } of groups) for (const colour of colours) if (!named.has(colour)) named.set(colour, name)
  for (const { colour } of props.swatches) named.delete(colour)
  const photo = [...named].filter(([, name]) => name === 'of the photo')
  const others = [...named].filter(([, name]) => name !== 'of the photo').slice(0, MOST_MORE)
  return [...photo, ...others].map(([colour, name]) => ({ colour, name: `${colour}, ${name}`, round: name !== 'of the photo' }))
})
const choices = computed(() => [...props.swatches.map((swatch) => ({ ...swatch, round: false })), ...more.value])
const typed = ref(props.value)
const isBad = ref(false)

watch(
  () => props.value,
  (value) => {
    typed.value = value
    isBad.value = false
  },
)

/** "#abc", "abc", "#aabbcc" or "aabbcc" as #AABBCC; null for anything else. */
function parsed(text: string): string | null {
  const hex = text.trim().replace(/^#/, '')
  const full = /^[0-9a-f]{3}$/i.test(hex) ? [...hex].map((digit) => digit + digit).join('') : hex
  return /^[0-9a-f]{6}$/i.test(full) ? `#${full.toUpperCase()}` : null
}

function commit(): void {
  const colour = parsed(typed.value)
  isBad.value = colour === null
  if (colour && colour !== props.value) choose(colour)
}

function choose(colour: string): void {
  offered.remember(colour)
  emit('change', colour)
}

function leave(): void {
  commit()
  typed.value = props.value
  isBad.value = false
}
</script>

<template>
  <div class="colour" role="group" :aria-label="label">
    <span v-radios class="swatches" role="radiogroup" :aria-label="`${label}, offered`">
      <button
        v-for="{ colour, name, round } in choices"
        :key="colour"
        type="button"
        role="radio"
        class="swatch"
        :class="{ round, on: colour === value }"
        :style="{ background: colour }"
        :aria-label="name"
        :aria-checked="colour === value"
        :data-tip="name"
        @click="choose(colour)"
        v-on="lookingAt((on) => emit('hover', on ? colour : null))"
      ></button>
    </span>
    <label class="hex">
      <span class="visually-hidden">{{ label }}, typed</span>
      <span class="swatch" :style="{ background: value }" aria-hidden="true"></span>
      <input
        v-model="typed"
        autocomplete="off"
        spellcheck="false"
        :aria-invalid="isBad"
        :title="isBad ? 'Six digits from 0 to F are needed, such as #B8401A.' : ''"
        @keydown.enter.prevent="commit"
        @keydown.escape.stop="typed = value"
        @blur="leave"
      />
    </label>
    <button
      v-if="!plain"
      type="button"
      class="pick"
      :aria-label="`${label}: pick from the picture`"
      data-tip="Pick a colour from the picture"
      @click="stage.pickColour(choose)"
    >
      <svg width="14" height="14" viewBox="0 0 14 14" aria-hidden="true">
        <path d="M8 3.500l2.500 2.500M9.200 1.800a1.600 1.600 0 0 1 2.900 2.900L6 10.500 2.500 12l1.200-3.600z" fill="none" stroke="currentColor" stroke-width="1.300" />
      </svg>
    </button>
  </div>
</template>

<style scoped>
.swatches {
  display: contents;
}

.colour {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
  align-items: center;
}

/* Clear of the slider's handle. */
.slider-row + .colour {
  margin-top: 6px;
}

.swatch {
  width: 26px;
  height: 26px;
  padding: 0;
  border: 1px solid var(--edge);
  border-radius: 4px;
}

.swatch.on {
  box-shadow:
    0 0 0 2px var(--card),
    0 0 0 4px var(--clover);
}

.round {
  border-radius: 50%;
}

.pick {
  display: grid;
  place-items: center;
  width: 28px;
  height: 28px;
  padding: 0;
  border: 1px solid var(--edge);
  border-radius: 4px;
  background: #ffffff;
}

.hex {
  display: flex;
  flex: 1;
  gap: 6px;
  align-items: center;
  min-width: 96px;
  min-height: 28px;
  padding: 2px 6px;
  border: 1px solid var(--edge);
  border-radius: 4px;
  background: #ffffff;
}

.hex:focus-within {
  outline: 2px solid var(--ink);
  outline-offset: 1px;
}

.hex .swatch {
  flex: none;
  width: 15px;
  height: 15px;
  border-radius: 2px;
}

.hex input {
  width: 100%;
  min-width: 0;
  padding: 0;
  border: 0;
  outline: 0;
  background: none;
}

.hex input[aria-invalid='true'] {
  color: var(--persimmon);
}
</style>
