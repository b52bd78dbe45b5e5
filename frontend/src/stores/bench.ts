// The finish in hand. The service computes every edit; here is only its present draft, what is
// tried out by hovering, and when it is saved.

import { until, useEventListener } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'

import { get, post, put, Refused, Unreachable } from '../api/client'
import type { Edit, Finish, FinishState, Laid, Layout, Size } from '../api/types'
import { useLatest } from '../composables/latest'
import { useNotices } from './notices'

export type EditOf = Edit | ((draft: Laid) => Edit)

export type Step = 'crop' | 'tone' | 'border' | 'pieces' | 'watermark' | 'export'

/** A burst of key presses or typed numbers is one revision. */
const BURST_MS = 700
/** How long the words and numbers of a draft may lag behind a slider on its way. */
const DRAFT_PAUSE_MS = 150
/** How long to wait for somebody to make room on a full disk. */
const RETRY_MS = 4000

const draftKey = (id: string) => `lucky-margin-draft-${id}`

export const useBench = defineStore('bench', () => {
  const notices = useNotices()
  const saved = shallowRef<FinishState | null>(null)
  const draft = shallowRef<Laid | null>(null)
  const sizeId = ref('')
  const openStep = ref<Step | null>(null)
  /** The edit that is hovered over, and what it would make of the draft. */
  const tryOut = shallowRef<Edit | null>(null)
  const tried = shallowRef<{ edit: Edit; layout: Layout } | null>(null)
  const stale = ref(false)
  const saving = ref(false)
  const dragging = ref(false)
  /** Edits of steps go to the size in hand alone, as its own way. */
  const onlyThisSize = ref(false)
  /** Raised whenever the stage has drawn its newest picture; proofs and checks follow it. */
  const stageDrawn = ref(0)

  const document = computed<Finish | null>(() => draft.value?.document ?? null)
  const layout = computed(() => draft.value?.layout ?? null)
  /** Pieces that follow the pointer as a picture of their own. A bubble's pointer stays behind. */
  const held = computed(() => {
    if (dragEdit.value?.kind !== 'drag_pieces' || !dragBase.value) return []
    const ids = dragEdit.value.ids
    const stays = here.value?.pieces.some(
      (piece) => ids.includes(piece.id) && (piece.locked || (piece.kind === 'badge' && piece.form === 'bubble' && piece.tip)),
    )
    return stays ? [] : ids
  })
  /** Lines that show what the drag under way was drawn to. */
  const guides = computed(() => (dragging.value ? (draft.value?.guides ?? []) : []))
  const shownLayout = computed(() => tried.value?.layout ?? layout.value)
  const size = computed<Size | null>(
    () => document.value?.sizes.find((one) => one.id === sizeId.value) ?? null,
  )
  /** The steps as the size in hand has them. */
  const here = computed(() => draft.value?.here ?? null)
  const isDirty = computed(
    () => !!saved.value && JSON.stringify(document.value) !== JSON.stringify(saved.value.document),
  )
  let queue: Promise<void> = Promise.resolve()
  let committing: Promise<void> | null = null
  let burst: ReturnType<typeof setTimeout> | undefined
  /** While a drag settles: when it has, and the edit that waits for that. */
  let ending: Promise<void> | null = null
  const afterEnding = shallowRef<Edit | null>(null)
  /** Whether a drag is under way, or waits for the one before it to settle. */
  const isDragging = computed(() => dragging.value || !!afterEnding.value)
  /** Whether anything is not saved yet. */
  const isUnsaved = computed(() => saving.value || isDragging.value || isDirty.value)
  /** What the drag under way began with, and the edit of it that is newest. */
  const dragBase = shallowRef<Finish | null>(null)
  const dragLayout = shallowRef<Layout | null>(null)
  const dragEdit = shallowRef<Edit | null>(null)
  /** What the drag under way has to include, and when it is over. */
  let beforeDrag: Promise<void> = queue
  let dragOver: Promise<void> = queue
  let releaseDrag: () => void = () => {}
  let hurry: () => void = () => {}

  /** Do `work` after everything that came before it, a drag under way included. */
  function enqueue(work: () => Promise<void>): Promise<void> {
    const drag = dragOver
    queue = queue.then(() => drag).then(work)
    return queue
  }

  async function load(id: string): Promise<void> {
    close()
    const state = await get<FinishState>(`/finishes/${id}`)
    await adopt(state)
    await recover(state)
  }

  function close(): void {
    clearTimeout(burst)
    saved.value = null
    draft.value = null
    stale.value = false
    openStep.value = null
    tryOut.value = null
    tried.value = null
    dragging.value = false
    dragBase.value = null
    dragEdit.value = null
    onlyThisSize.value = false
  }

  /** Take what the service has as the present state. */
  async function adopt(state: FinishState): Promise<void> {
    const { sizes } = state.document
    const id = sizes.some((one) => one.id === sizeId.value) ? sizeId.value : sizes[0]!.id
    const laid = await layOut(state.document, null, id)
    saved.value = state
    sizeId.value = id
    draft.value = laid
    stale.value = false
  }

  /** Changes that could not be saved before the page was left are saved now, or as a copy. */
  async function recover(state: FinishState): Promise<void> {
    const kept = localStorage.getItem(draftKey(state.id))
    if (!kept) return
    const { etag, document: unsaved } = JSON.parse(kept) as { etag: number; document: Finish }
    localStorage.removeItem(draftKey(state.id))
    if (JSON.stringify(unsaved) === JSON.stringify(state.document)) return // it was saved after all
    if (etag === state.etag) {
      draft.value = await layOut(unsaved)
      await commit()
      notices.say('Changes that could not be saved last time are back.')
    } else {
      await post('/finishes', { document: unsaved, name: `${unsaved.name.slice(0, 113)} (copy)` })
      notices.say('Changes that could not be saved last time were kept as a copy on the shelf.')
    }
  }

  function layOut(base: Finish, edit: Edit | null = null, size_id = sizeId.value): Promise<Laid> {
    return post<Laid>('/bench/draft', { document: base, size_id, edit })
  }

  /** Take another size in hand, after all that is under way. */
  function workOn(id: string): Promise<void> {
    tryOut.value = null
    return enqueue(async () => {
      // It may have been removed by what came before.
      const isThere = document.value?.sizes.some((one) => one.id === id)
      if (!document.value || !isThere || sizeId.value === id) return
      try {
        const laid = await layOut(document.value, null, id)
        sizeId.value = id
        draft.value = laid
        tried.value = null
      } catch (error) {
        notices.tell(error)
      }
    })
  }

  const trying = useLatest<Edit | null>(async (wanted) => {
    try {
      const laid = wanted && document.value ? await layOut(document.value, wanted) : null
      tried.value = wanted && laid ? { edit: wanted, layout: laid.layout } : null
    } catch (error) {
      tried.value = null
      notices.tell(error)
    }
  })
  watch(tryOut, trying.ask)

  /**
   * Make an edit. It is saved at once, or after a pause when it is one of a burst. An edit that
   * builds on present values is given as a function of the draft, since edits before it may
   * still be under way.
   */
  function edit(wanted: EditOf, when: 'now' | 'after a pause' = 'now'): Promise<void> {
    const id = saved.value?.id
    tryOut.value = null
    return enqueue(async () => {
      try {
        await whenReachable(async () => {
          if (!draft.value || saved.value?.id !== id) return
          const now = typeof wanted === 'function' ? wanted(draft.value) : wanted
          const laid = await layOut(draft.value.document, now)
          sizeId.value = laid.size_id
          draft.value = laid
          tried.value = null
          notices.say(laid.said)
        })
        if (when === 'now') await commit()
        else commitAfterPause()
      } catch (error) {
        notices.tell(error)
      }
    })
  }

  /** Do `work`, again when the service is back if it does not answer now. */
  async function whenReachable(work: () => Promise<void>): Promise<void> {
    for (;;) {
      try {
        return await work()
      } catch (error) {
        if (!(error instanceof Unreachable)) throw error
        notices.lose()
        await until(() => notices.unreachable).toBe(false)
      }
    }
  }

  const dragged = useLatest<Edit>(async (wanted) => {
    try {
      await beforeDrag
      if (!dragging.value) return
      if (!dragBase.value) {
        dragLayout.value = layout.value
        dragBase.value = document.value
      }
      if (dragBase.value) draft.value = await layOut(dragBase.value, wanted)
      if (showsInPicture(wanted)) await pauseInDrag()
    } catch (error) {
      notices.tell(error)
    }
  })

  /** Sliders show their own place; all else that they change is the picture, asked for apart. */
  function showsInPicture(wanted: Edit): boolean {
    return ['set_tone', 'set_border', 'set_watermark'].includes(wanted.kind)
  }

  /** Leave the machine to the picture, until the drag ends. */
  async function pauseInDrag(): Promise<void> {
    const over = new Promise<void>((resolve) => (hurry = resolve))
    const pause = new Promise<void>((resolve) => setTimeout(resolve, DRAFT_PAUSE_MS))
    if (dragging.value) await Promise.race([pause, over])
  }

  /** A drag, or a slider's way: every move is an edit of where it began; its end is saved. */
  function drag(wanted: Edit): void {
    if (ending) {
      // The drag before this one is still settling; its edit must not be lost to this one.
      afterEnding.value = wanted
      void ending.then(dragOn)
      return
    }
    if (!dragging.value) {
      dragging.value = true
      beforeDrag = queue
      dragOver = new Promise((resolve) => (releaseDrag = resolve))
    }
    dragEdit.value = wanted
    tryOut.value = null
    dragged.ask(wanted)
  }

  /** Begin the drag that waited for the one before it. */
  function dragOn(): void {
    const wanted = afterEnding.value
    afterEnding.value = null
    if (wanted) drag(wanted)
  }

  async function endDrag(when: 'now' | 'after a pause' = 'now'): Promise<void> {
    if (ending) {
      await ending
      dragOn()
    }
    if (!dragging.value) return
    ending = settleDrag()
    try {
      await ending
    } finally {
      ending = null
    }
    if (when === 'now') await commit()
    else commitAfterPause()
  }

  async function settleDrag(): Promise<void> {
    hurry()
    await dragged.settled()
    dragging.value = false
    dragBase.value = null
    dragEdit.value = null
    releaseDrag()
  }

  /** A slider let go, moved by a key or typed: several such in a row are one revision. */
  function slide(wanted: Edit): Promise<void> {
    if (!dragging.value) return edit(wanted, 'after a pause')
    drag(wanted)
    return endDrag('after a pause')
  }

  function commitAfterPause(): void {
    clearTimeout(burst)
    burst = setTimeout(commit, BURST_MS)
  }

  async function cancelDrag(): Promise<void> {
    afterEnding.value = null
    if (!dragging.value) return
    dragging.value = false
    hurry()
    await dragged.settled()
    const base = dragBase.value
    dragBase.value = null
    dragEdit.value = null
    if (base) draft.value = await layOut(base)
    releaseDrag()
  }

  /** Save the draft; while a save is under way, the same one. */
  function commit(): Promise<void> {
    clearTimeout(burst)
    committing ??= save().finally(() => (committing = null))
    return committing
  }

  async function save(): Promise<void> {
    if (stale.value) return
    saving.value = true
    try {
      while (isDirty.value && saved.value && document.value) {
        const { id, etag } = saved.value
        const sent = document.value
        const state = await put<FinishState>(`/finishes/${id}`, { etag, document: sent })
        localStorage.removeItem(draftKey(id))
        if (saved.value?.id !== id) return // another finish was opened meanwhile
        saved.value = { ...state, document: sent }
        notices.diskFull = false
      }
    } catch (error) {
      keepForLater()
      if (error instanceof Refused && error.isStale) stale.value = true
      else if (error instanceof Refused && error.isDiskFull) trySavingLater()
      else notices.tell(error)
    } finally {
      saving.value = false
    }
  }

  function trySavingLater(): void {
    notices.diskFull = true
    burst = setTimeout(commit, RETRY_MS)
  }

  function keepForLater(): void {
    if (!saved.value || !document.value) return
    const kept = JSON.stringify({ etag: saved.value.etag, document: document.value })
    localStorage.setItem(draftKey(saved.value.id), kept)
  }

  useEventListener(window, 'pagehide', () => {
    if (isDirty.value) keepForLater()
  })

  watch(
    () => notices.unreachable,
    (gone) => {
      if (!gone && isDirty.value) void commit()
    },
  )

  /** Ask the service to move the finish through its history, after all that came before. */
  function go(path: string, body: Record<string, unknown> = {}): Promise<void> {
    return enqueue(async () => {
      await commit()
      if (!saved.value || stale.value) return
      try {
        await adopt(await post<FinishState>(path, { etag: saved.value.etag, ...body }))
      } catch (error) {
        if (error instanceof Refused && error.isStale) stale.value = true
        else notices.tell(error)
      }
    })
  }

  const under = (path: string) => `/finishes/${saved.value?.id}/${path}`
  const undo = () => go(under('undo'))
  const redo = () => go(under('redo'))
  const reopen = (revision: number) => go(under('reopen'), { revision })
  const backToOriginal = () => go(under('original'))
  const openExport = (id: number) => go(`/exports/${id}/open`)

  async function loadNewer(): Promise<void> {
    if (!saved.value) return
    localStorage.removeItem(draftKey(saved.value.id))
    await load(saved.value.id).catch(notices.tell)
  }

  /** Keep the draft that came too late as a finish of its own; returns its id. */
  async function keepAsCopy(): Promise<string | null> {
    if (!saved.value || !document.value) return null
    const name = `${document.value.name.slice(0, 113)} (copy)`
    try {
      const copy = await post<FinishState>('/finishes', { document: document.value, name })
      localStorage.removeItem(draftKey(saved.value.id))
      return copy.id
    } catch (error) {
      notices.tell(error)
      return null
    }
  }

  /** Everything committed, whatever is still under way; false when it could not be. */
  async function settle(): Promise<boolean> {
    await endDrag()
    await queue
    await commit()
    return !isDirty.value
  }

  function toggleStep(step: Step): void {
    openStep.value = openStep.value === step ? null : step
  }

  return {
    saved,
    draft,
    document,
    layout,
    guides,
    held,
    dragLayout,
    shownLayout,
    size,
    sizeId,
    openStep,
    tryOut,
    tried,
    stale,
    saving,
    dragging,
    dragBase,
    dragEdit,
    onlyThisSize,
    here,
    isDirty,
    isDragging,
    isUnsaved,
    stageDrawn,
    workOn,
    load,
    close,
    edit,
    drag,
    endDrag,
    slide,
    cancelDrag,
    commit,
    undo,
    redo,
    reopen,
    backToOriginal,
    openExport,
    loadNewer,
    keepAsCopy,
    settle,
    toggleStep,
  }
})

