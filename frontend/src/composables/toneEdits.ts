// Edits of the tone: one setting, several, or some of them back to how they came.

import { computed } from 'vue'

import type { Edit, Tone, ToneChanges } from '../api/types'
import { useBench } from '../stores/bench'

export type Setting =
  | 'exposure'
  | 'contrast'
  | 'highlights'
  | 'shadows'
  | 'whites'
  | 'blacks'
  | 'clarity'
  | 'temperature'
  | 'tint'
  | 'saturation'
  | 'vibrance'
  | 'grey'
  | 'texture'
  | 'smooth_light'
  | 'smooth_colour'
  | 'sharpen'

type Field = keyof ToneChanges

const BAND = { hue: 0, saturation: 0, lightness: 0 }
const FRESH: Required<ToneChanges> = {
  on: true,
  look: null,
  exposure: 0,
  contrast: 0,
  highlights: 0,
  shadows: 0,
  whites: 0,
  blacks: 0,
  temperature: 0,
  tint: 0,
  saturation: 0,
  vibrance: 0,
  clarity: 0,
  texture: 0,
  smooth_light: 0,
  smooth_colour: 0,
  sharpen: 0,
  bands: {
    red: BAND,
    orange: BAND,
    yellow: BAND,
    green: BAND,
    aqua: BAND,
    blue: BAND,
    purple: BAND,
    magenta: BAND,
  },
  grey: 0,
  curve: [
    { x: 0, y: 0 },
    { x: 1, y: 1 },
  ],
  black_point: 0,
  white_point: 1,
  recolour: { strength: 0, dark: '#1E2A2F', light: '#F5F1E8' },
  areas: [],
  washes: [],
  fade: { amount: 0, colour: '#FFFFFF' },
}

export function useToneEdits() {
  const bench = useBench()
  const tone = computed<Tone>(() => bench.here!.tone)

  /** Changing anything of a tone that is switched off switches it on. */
  function change(changes: Partial<ToneChanges>): Edit {
    return {
      kind: 'set_tone',
      changes: { ...changes, on: true } as ToneChanges,
      only_this_size: bench.onlyThisSize,
    }
  }

  function isSet(field: Field): boolean {
    return JSON.stringify(tone.value[field]) !== JSON.stringify(FRESH[field])
  }

  /** Whether it changes anything when it is on. */
  const isAnySet = computed(() =>
    (Object.keys(FRESH) as Field[]).some((field) => field !== 'on' && isSet(field)),
  )

  function reset(fields: Field[]): void {
    const changes = Object.fromEntries(fields.map((field) => [field, FRESH[field]]))
    void bench.edit(change(changes as Partial<ToneChanges>))
  }

  return { tone, change, isSet, isAnySet, reset }
}
