// Edits of the list of treatments, one of which is worked on.

import { computed, onScopeDispose, ref } from 'vue'

import type { Edit, Treatment } from '../api/types'
import { useBench } from '../stores/bench'
import { useStage } from '../stores/stage'

/** Whether the next one that is picked comes on top of the others. */
const adding = ref(false)

export function useTreatmentEdits() {
  const bench = useBench()
  const stage = useStage()
  const made = computed(() => bench.here!.treatments.made)
  const at = computed(() => Math.max(0, Math.min(stage.partNumber.treatment, made.value.length - 1)))
  const treatment = computed(() => (adding.value ? undefined : made.value[at.value]))
  const short = computed(() => Math.min(bench.layout!.width, bench.layout!.height))

  /** Changing anything of treatments that are switched off switches them on. */
  function set(now: Treatment[]): Edit {
    return { kind: 'set_treatments', changes: { made: now, on: true }, only_this_size: bench.onlyThisSize }
  }

  /** Another in the place of the one that is worked on. */
  const replace = (now: Treatment): Edit =>
    set(made.value.map((one, index) => (index === at.value ? now : one)))

  /** The one that is worked on with some of its fields changed. */
  const change = (fields: Record<string, unknown>): Edit =>
    replace({ ...made.value[at.value]!, ...fields } as Treatment)

  /** Another in the place of the one that is worked on, of the same part of the photo, unless other
   * `parts` are given, and as strong; where there is none, one more. */
  function take(style: Treatment, parts?: Treatment['masks']): Edit {
    const present = treatment.value
    const focus = bench.document!.focus?.point
    const fresh = style.kind === 'sharp_zone' && focus ? { ...style, centre: focus } : style
    if (!present) return set([...made.value, fresh])
    const { on, strength, blend, covers } = present
    return replace({ ...fresh, on, strength, blend, covers, masks: parts ?? present.masks })
  }

  function work(on: number): void {
    adding.value = false
    stage.partNumber.treatment = on
  }

  async function pick(fresh: Treatment): Promise<void> {
    const number = treatment.value ? at.value : made.value.length
    await bench.edit(take(fresh))
    work(number)
  }

  async function remove(): Promise<void> {
    await bench.edit(set(made.value.filter((_, index) => index !== at.value)))
    work(Math.max(0, at.value - 1))
  }

  /** One place earlier (-1) or later (1) in the order. */
  async function move(way: number): Promise<void> {
    const now = [...made.value]
    const [moved] = now.splice(at.value, 1)
    now.splice(at.value + way, 0, moved!)
    const number = at.value + way
    await bench.edit(set(now))
    work(number)
  }

  /** While a part of the panel is there, grips of the one that is worked on show on the stage. */
  function showGrips(): void {
    stage.partKind = 'treatment'
    onScopeDispose(() => {
      if (stage.partKind === 'treatment') stage.partKind = null
      adding.value = false
    })
  }

  return { made, at, treatment, adding, short, set, change, take, pick, remove, move, work, showGrips }
}
