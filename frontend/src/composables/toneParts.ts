// The parts of a tone that lie on the photo, washes and areas: which one is worked on, and edits
// of it.

import { computed, onScopeDispose } from 'vue'

import type { Area, Edit, ToneChanges, Wash } from '../api/types'
import { useBench } from '../stores/bench'
import { useStage } from '../stores/stage'
import { useToneEdits } from './toneEdits'

interface Parts {
  wash: Wash
  area: Area
}

const FIELDS = { wash: 'washes', area: 'areas' } as const

export function useToneParts<Kind extends keyof Parts>(kind: Kind) {
  const bench = useBench()
  const stage = useStage()
  const { tone, change } = useToneEdits()

  const parts = computed(() => tone.value[FIELDS[kind]] as Parts[Kind][])
  const number = computed(() => Math.min(stage.partNumber[kind], parts.value.length - 1))
  const part = computed<Parts[Kind] | null>(() => parts.value[number.value] ?? null)

  /** The grips of what is worked on show on the stage. */
  function take(which = number.value): void {
    stage.partKind = kind
    stage.partNumber[kind] = Math.max(0, which)
  }
  take()
  onScopeDispose(() => {
    if (stage.partKind === kind) stage.partKind = null
  })

  function withParts(list: Parts[Kind][]): Edit {
    return change({ [FIELDS[kind]]: list } as Partial<ToneChanges>)
  }

  /** The edit that gives the part worked on other fields. */
  function set(fields: Partial<Parts[Kind]>): Edit {
    return withParts(parts.value.map((one, at) => (at === number.value ? { ...one, ...fields } : one)))
  }

  function remove(): void {
    void bench.edit(withParts(parts.value.filter((_, at) => at !== number.value)))
    take(Math.max(0, number.value - 1))
  }

  /** Make an edit that adds a part, and take that in hand. */
  async function add(edit: Edit): Promise<void> {
    await bench.edit(edit)
    take(parts.value.length - 1)
  }

  return { parts, number, part, take, set, remove, add }
}
