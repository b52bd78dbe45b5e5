// Work for the service, several pieces at a time: with many cores it does more than one.

/** More than the service does at once would only wait there. */
const LANES = 3

/**
 * Do `work` for each of `items`, begun in their order. After a failure no more is begun, and it is thrown once all that
 * is under way has ended.
 */
export async function inLanes<Item>(items: readonly Item[], work: (item: Item, lane: number) => Promise<void>): Promise<void> {
  const left = items.values()
  const failures: unknown[] = []

  async function go(lane: number): Promise<void> {
    for (const item of left) {
      if (failures.length) return
      await work(item, lane).catch((error) => failures.push(error))
    }
  }

  await Promise.all(Array.from({ length: LANES }, (_, lane) => go(lane)))
  if (failures.length) throw failures[0]
}
