// Edits of the border's bands, one of which is worked on.

import { computed, ref } from 'vue'

import type { BandChanges, BandKind, BandOf, BorderBand, Edit } from '../api/types'
import { useBench } from '../stores/bench'
import { useFrames } from '../stores/frames'

/** The band that is worked on, counted from the outside. */
const number = ref(0)

export function useBandEdits() {
  const bench = useBench()
  const frames = useFrames()
  const bands = computed(() => bench.here!.border.bands)
  const at = computed(() => Math.max(0, Math.min(number.value, bands.value.length - 1)))
  const band = computed(() => bands.value[at.value])
  const short = computed(() => Math.min(bench.layout!.width, bench.layout!.height))

  /** Changing anything of a border that is switched off switches it on. */
  function set(now: BorderBand[]): Edit {
    return { kind: 'set_border', changes: { bands: now, on: true }, only_this_size: bench.onlyThisSize }
  }

  /** Another band in the place of the one that is worked on; where there is none, the first. */
  function replace(now: BorderBand, among = bands.value): Edit {
    return set([...among.slice(0, at.value), now, ...among.slice(at.value + 1)])
  }

  /** The band that is worked on with some of its fields changed; the first one begins as a line. */
  function change(fields: BandChanges, among = bands.value): Edit {
    const now = { ...(among[at.value] ?? frames.fresh('line')!), ...fields } as BorderBand
    return replace(now, among)
  }

  /** The band that is worked on as a new one of another kind, around the photo if it was. */
  function become(kind: BandKind): Edit {
    const fresh = frames.fresh(kind)!
    const around = band.value?.around ?? fresh.around
    return replace(fresh.kind === 'brushed' ? fresh : { ...fresh, around })
  }

  /** One more inside those that are there. */
  function add(): void {
    const around = bands.value.every((one) => one.around)
    number.value = bands.value.length
    void bench.edit(set([...bands.value, { ...frames.fresh('line')!, around }]))
  }

  function removeBand(): void {
    const left = bands.value.filter((_, index) => index !== at.value)
    void bench.edit(set(left))
  }

  /** The band that is worked on, where it is of this kind. */
  function bandOf<Kind extends BandKind>(kind: Kind): BandOf<Kind> | undefined {
    return band.value?.kind === kind ? (band.value as BandOf<Kind>) : undefined
  }

  return { number, bands, at, band, short, set, change, become, add, removeBand, bandOf }
}
