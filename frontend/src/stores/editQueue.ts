// Edits one after the other, and drags between them. Whatever throws is told, and nothing that
// comes later waits for it: a drag that is left without an end is ended by who holds the queue.

import { computed, shallowRef } from 'vue'

/** What a drag does; each of its moves is an edit of where it began. */
export interface DragActions<Wish> {
  /** Take down what the drag begins with; everything before it has been carried out. */
  begin: () => void
  /** Carry out the newest wish. Long waits in it are cut short by `hurry`. */
  move: (wish: Wish, hurry: Promise<void>) => Promise<void>
  /** Put back what the drag began with. */
  putBack: () => Promise<void>
  /** The drag is over; its wishes are no longer looked at. */
  finish: () => void
}

interface Drag<Wish> {
  next: { wish: Wish } | null
  newest: Wish
  /** What has to be carried out before it. */
  ready: Promise<void>
  running: Promise<void> | null
  hasBegun: boolean
  over: Promise<void>
  release: () => void
  hurry: Promise<void>
  hurryUp: () => void
}

export type QueueState = 'idle' | 'dragging' | 'settling'

export function createEditQueue<Wish>(actions: DragActions<Wish>, tell: (error: unknown) => void) {
  const state = shallowRef<QueueState>('idle')
  const current = shallowRef<Drag<Wish> | null>(null)
  const newestWish = shallowRef<Wish | null>(null)
  /** A drag that began while the one before it settles. */
  const waiting = shallowRef<{ wish: Wish } | null>(null)
  let tail: Promise<void> = Promise.resolve()
  let settling: Promise<void> | null = null

  const isDragging = computed(() => state.value !== 'idle')
  const isBusy = computed(() => isDragging.value || waiting.value !== null)

  /** Do `work` after everything that came before it, a drag under way included. */
  function run(work: () => Promise<void>): Promise<void> {
    const drag = current.value?.over
    tail = tail.then(() => drag).then(work).catch(tell)
    return tail
  }

  /** Begin a drag, or move the one under way. */
  function drag(wish: Wish): void {
    if (settling) {
      // The drag before this one is still settling; its end must not be lost to this one.
      waiting.value = { wish }
      void settling.then(dragOn)
      return
    }
    current.value ??= begun(wish)
    const dragged = current.value
    dragged.newest = wish
    dragged.next = { wish }
    newestWish.value = wish
    state.value = 'dragging'
    dragged.running ??= carryOut(dragged).finally(() => (dragged.running = null))
  }

  function begun(wish: Wish): Drag<Wish> {
    const over = deferred()
    const hurry = deferred()
    return {
      next: null,
      newest: wish,
      ready: tail,
      running: null,
      hasBegun: false,
      over: over.promise,
      release: over.resolve,
      hurry: hurry.promise,
      hurryUp: hurry.resolve,
    }
  }

  async function carryOut(dragged: Drag<Wish>): Promise<void> {
    await dragged.ready
    while (dragged.next && current.value === dragged) {
      const { wish } = dragged.next
      dragged.next = null
      try {
        if (!dragged.hasBegun) actions.begin()
        dragged.hasBegun = true
        await actions.move(wish, dragged.hurry)
      } catch (error) {
        tell(error)
      }
    }
  }

  /** Begin the drag that waited for the one before it. */
  function dragOn(): void {
    const begun = waiting.value
    waiting.value = null
    if (begun) drag(begun.wish)
  }

  /**
   * End the drag under way, when its newest wish is carried out; whether there was one. One that
   * begins after this was asked is somebody else's.
   */
  async function end(): Promise<boolean> {
    if (settling) {
      const isOneWaiting = waiting.value !== null
      await settling
      if (!isOneWaiting) return false
      dragOn()
    }
    const dragged = current.value
    if (!dragged) return false
    await settle(dragged)
    return true
  }

  /** Drop the drag under way, and put back what it began with. */
  async function cancel(): Promise<void> {
    waiting.value = null
    const dragged = current.value
    if (!dragged || settling) return
    dragged.next = null
    await settle(dragged, actions.putBack)
  }

  async function settle(dragged: Drag<Wish>, last?: () => Promise<void>): Promise<void> {
    state.value = 'settling'
    settling = (async () => {
      dragged.hurryUp()
      await dragged.running
      if (last && dragged.hasBegun) await last().catch(tell)
      if (current.value === dragged) conclude(dragged)
    })()
    try {
      await settling
    } finally {
      settling = null
    }
  }

  function conclude(dragged: Drag<Wish>): void {
    current.value = null
    newestWish.value = null
    state.value = 'idle'
    actions.finish()
    dragged.release()
  }

  /** Let go of whatever is under way, for another document. */
  function reset(): void {
    waiting.value = null
    const dragged = current.value
    if (!dragged) return
    dragged.next = null
    dragged.hurryUp()
    conclude(dragged)
  }

  /** Resolves when everything asked so far has been carried out. */
  function settled(): Promise<void> {
    return tail
  }

  /** End the drag that is under way now, unless it ends or moves on by itself within `ms`. */
  function endSoon(ms: number, ended: () => void): void {
    const dragged = current.value
    const newest = dragged?.newest
    if (!dragged) return
    setTimeout(() => {
      if (current.value === dragged && dragged.newest === newest && !settling) ended()
    }, ms)
  }

  return {
    state,
    isDragging,
    isBusy,
    newestWish,
    run,
    drag,
    end,
    cancel,
    reset,
    settled,
    endSoon,
  }
}

function deferred(): { promise: Promise<void>; resolve: () => void } {
  let resolve: () => void = () => {}
  const promise = new Promise<void>((done) => (resolve = done))
  return { promise, resolve }
}
