<script setup lang="ts">
// The circle of hues: a named hue is dragged round to turn it, in and out for its strength.

import { computed, useTemplateRef } from 'vue'

import type { Edit, Tone } from '../../../api/types'
import { followPointer } from '../../../composables/drags'
import { arrowWay } from '../../../composables/keyNames'
import { useToneEdits } from '../../../composables/toneEdits'
import { useBench } from '../../../stores/bench'

export type Hue = keyof Tone['hues']
type Shift = Tone['hues']['red']

/** Half of the ring's side, and how far from its middle a hue lies at no and at full strength. */
const HALF = 100
const REST = 62
const FULL = 92
const MOST_TURN = 30

const chosen = defineModel<Hue>({ required: true })

const bench = useBench()
const { tone, change } = useToneEdits()
const ring = useTemplateRef<HTMLElement>('ring')
const names = computed(() => Object.keys(tone.value.hues) as Hue[])
const centre = (name: Hue) => 20 + (360 / names.value.length) * names.value.indexOf(name)

/** Where a hue's knob lies, in shares of the ring's side. */
function place(name: Hue): { left: string; top: string } {
  const { turn, strength } = tone.value.hues[name]
  const angle = ((centre(name) + turn) * Math.PI) / 180
  const radius = REST + (strength / 100) * (FULL - REST)
  const share = (value: number) => `${(50 * (HALF + value)) / HALF}%`
  return { left: share(radius * Math.sin(angle)), top: share(-radius * Math.cos(angle)) }
}

function edit(name: Hue, fields: Partial<Shift>): Edit {
  return change({ hues: { ...tone.value.hues, [name]: { ...tone.value.hues[name], ...fields } } })
}

/** What a hue becomes when its knob is at a point of the screen. */
function at(name: Hue, x: number, y: number): Partial<Shift> {
  const frame = ring.value!.getBoundingClientRect()
  const scale = (2 * HALF) / frame.width
  const across = (x - frame.left) * scale - HALF
  const down = (y - frame.top) * scale - HALF
  const away = (Math.atan2(across, -down) * 180) / Math.PI - centre(name)
  const turn = ((away % 360) + 540) % 360 - 180
  const strength = ((Math.hypot(across, down) - REST) / (FULL - REST)) * 100
  const within = (value: number, most: number) => Math.round(Math.max(-most, Math.min(most, value)))
  return { turn: within(turn, MOST_TURN), strength: within(strength, 100) }
}

function press(event: PointerEvent, name: Hue): void {
  chosen.value = name
  followPointer(event, {
    move: (_dx, _dy, { clientX, clientY }) => bench.drag(edit(name, at(name, clientX, clientY))),
    end: () => void bench.endDrag(),
  })
}

function nudge(event: KeyboardEvent, name: Hue): void {
  const way = arrowWay(event)
  if (!way) return
  event.preventDefault()
  event.stopPropagation()
  const { turn, strength } = tone.value.hues[name]
  const within = (value: number, most: number) => Math.max(-most, Math.min(most, value))
  const fields = { turn: within(turn + way[0], MOST_TURN), strength: within(strength - way[1], 100) }
  void bench.edit(edit(name, fields), 'after a pause')
}

function reset(name: Hue): void {
  void bench.edit(edit(name, { turn: 0, strength: 0, lightness: 0 }))
}

const colour = (name: Hue) => `oklch(0.68 0.13 ${centre(name)})`
const isSet = (name: Hue) => Object.values(tone.value.hues[name]).some((value) => value !== 0)
</script>

<template>
  <div ref="ring" class="ring" role="group" aria-label="Hues; arrow keys turn one and make it stronger">
    <span class="rest" aria-hidden="true"></span>
    <button
      v-for="name in names"
      :key="name"
      type="button"
      class="grip-target"
      :class="{ on: name === chosen, set: isSet(name) }"
      :style="{ ...place(name), background: colour(name) }"
      :aria-label="name"
      :aria-pressed="name === chosen"
      :data-tip="`${name}: drag it round to turn it, in or out for its strength`"
      @pointerdown="(event) => press(event, name)"
      @focus="chosen = name"
      @keydown="(event) => nudge(event, name)"
      @dblclick="reset(name)"
    ></button>
  </div>
</template>

<style scoped>
.ring {
  position: relative;
  width: 190px;
  height: 190px;
  margin: 6px auto 10px;
  border-radius: 50%;
  background:
    radial-gradient(circle, #6f6f6c 34%, transparent 62%),
    conic-gradient(in oklch longer hue, oklch(0.68 0.13 0), oklch(0.68 0.13 360));
}

.rest {
  position: absolute;
  inset: 19%;
  border: 1px dashed rgb(255 255 255 / 55%);
  border-radius: 50%;
}

button {
  position: absolute;
  width: 24px;
  height: 24px;
  padding: 0;
  border: 2px solid #ffffff;
  border-radius: 50%;
  box-shadow: 0 0 0 1px rgb(30 42 47 / 70%);
  transform: translate(-50%, -50%);
  cursor: grab;
  touch-action: none;
}

button.on {
  border-color: var(--ink);
  box-shadow: 0 0 0 2px #ffffff;
}

button.set::after {
  content: '';
  position: absolute;
  inset: 7px;
  border-radius: 50%;
  background: #ffffff;
}
</style>
