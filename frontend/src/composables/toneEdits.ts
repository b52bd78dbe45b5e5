// Edits of the tone: one setting, several, or some of them back to how they came.

import { computed } from 'vue'

import type { Edit, Tone, ToneChanges } from '../api/types'
import { useBench } from '../stores/bench'
import { useDocket } from '../stores/docket'

/** Settings that are single numbers of their own. */
export type Setting = {
  [Field in keyof Tone]-?: Tone[Field] extends number ? Field : never
}[keyof Tone]

type Field = keyof ToneChanges

const WORDS: Partial<Record<Setting, string>> = {
  noise_reduction: 'noise',
  colour_noise_reduction: 'colour noise',
}

/** A setting as the screen calls it, without a capital. */
export function settingWords(name: Setting): string {
  return WORDS[name] ?? name.replaceAll('_', ' ')
}

export function useToneEdits() {
  const bench = useBench()
  const docket = useDocket()
  const fresh = computed(() => docket.fresh('tone'))
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
    return JSON.stringify(tone.value[field as keyof Tone]) !== JSON.stringify(fresh.value[field as keyof Tone])
  }

  /** Whether it changes anything when it is on. */
  const isAnySet = computed(() =>
    (Object.keys(fresh.value) as Field[]).some((field) => field !== 'on' && isSet(field)),
  )

  function reset(fields: Field[]): void {
    const changes = Object.fromEntries(fields.map((field) => [field, fresh.value[field as keyof Tone]]))
    void bench.edit(change(changes as Partial<ToneChanges>))
  }

  return { tone, change, isSet, isAnySet, reset }
}
