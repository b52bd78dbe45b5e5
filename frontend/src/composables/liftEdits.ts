// Edits of the lifts, one of which is worked on, and of what lies under them.

import { computed, onScopeDispose } from 'vue'

import type { Edit, Lift, LiftBase, Shape } from '../api/types'
import { useBench } from '../stores/bench'
import { useStage } from '../stores/stage'

export function useLiftEdits() {
  const bench = useBench()
  const stage = useStage()
  const lifted = computed(() => bench.here!.lifts.lifted)
  const base = computed(() => bench.here!.lifts.base)
  const at = computed(() => Math.max(0, Math.min(stage.partNumber.lift, lifted.value.length - 1)))
  const lift = computed(() => lifted.value[at.value])

  const set = (now: Lift[]): Edit => ({
    kind: 'set_lifts',
    changes: { lifted: now },
    only_this_size: bench.onlyThisSize,
  })

  /** The one that is worked on with some of its fields changed. */
  const change = (fields: Partial<Lift>): Edit =>
    set(lifted.value.map((one, index) => (index === at.value ? { ...one, ...fields } : one)))

  const changeBase = (fields: Partial<LiftBase>): Edit => ({
    kind: 'set_lifts',
    changes: { base: { ...base.value, ...fields } },
    only_this_size: bench.onlyThisSize,
  })

  /** The grips of the one that is worked on show on the stage. */
  function work(on = at.value): void {
    stage.partKind = 'lift'
    stage.partNumber.lift = on
  }

  /** Lift a shape of the photo, or the subject. */
  async function add(shape: Shape | null): Promise<void> {
    const number = lifted.value.length
    await bench.edit({ kind: 'add_lift', shape, only_this_size: bench.onlyThisSize })
    work(number)
  }

  async function remove(): Promise<void> {
    await bench.edit(set(lifted.value.filter((_, index) => index !== at.value)))
    work(Math.max(0, at.value - 1))
  }

  /** One place lower (-1) or higher (1). */
  async function move(way: number): Promise<void> {
    const now = [...lifted.value]
    const [moved] = now.splice(at.value, 1)
    const number = at.value + way
    now.splice(number, 0, moved!)
    await bench.edit(set(now))
    work(number)
  }

  onScopeDispose(() => {
    if (stage.partKind === 'lift') stage.partKind = null
  })

  return { lifted, base, at, lift, change, changeBase, work, add, remove, move }
}
