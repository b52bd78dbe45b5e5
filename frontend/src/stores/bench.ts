// The finish in hand. The service computes every edit; here is only its present draft, what is
// tried out by hovering, and when it is saved.

import { promiseTimeout, until, useEventListener } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'

import { get, post, Refused, Unreachable } from '../api/client'
import { layOut, postAbout, sendDraft } from '../api/drafts'
import type { Edit, Finish, FinishState, Laid, Layout, Size } from '../api/types'
import { useLatest } from '../composables/latest'
import { useDocket } from './docket'
import { createEditQueue } from './editQueue'
import { forgetDraft, keptDraft } from './keptDrafts'
import { useNotices } from './notices'
import { createSaving } from './saving'

export type EditOf = Edit | ((draft: Laid) => Edit)

/** The key of a docket step, as the service names it. */
export type Step = string

/** How long the words and numbers of a draft may lag behind a slider on its way. */
const DRAFT_PAUSE_MS = 150
/** How long after a release a drag may take to end by itself. */
const LEFT_DRAG_MS = 150

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
  const { saving, isDirty, commit, commitAfterPause, forget } = createSaving(saved, draft, stale)
  /** Edits of steps go to the size in hand alone, as its overrides. */
  const onlyThisSize = ref(false)
  /** Raised whenever the stage has drawn its newest picture; proofs and checks follow it. */
  const stageDrawn = ref(0)
  /** Whether the stage waits for a picture. */
  const isStageDrawing = ref(false)

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
  /** What the drag under way began with. */
  const dragBase = shallowRef<Laid | null>(null)
  const queue = createEditQueue<Edit>({ begin: beginDrag, move: moveDrag, putBack, finish: finishDrag }, notices.tell)
  const dragging = queue.isDragging
  const dragEdit = queue.newestWish
  const isDragging = queue.isBusy
  /** Whether anything is not saved yet. */
  const isUnsaved = computed(() => saving.value || isDragging.value || isDirty.value)

  async function load(id: string): Promise<void> {
    close()
    const [state] = await Promise.all([get<FinishState>(`/finishes/${id}`), useDocket().load()])
    await adopt(state)
    if (state.changes === 1) openStep.value = 'crop' // with a new photo the crop comes first
    await recover(state)
  }

  function close(): void {
    forget()
    saved.value = null
    draft.value = null
    stale.value = false
    openStep.value = null
    tryOut.value = null
    tried.value = null
    onlyThisSize.value = false
    queue.reset()
  }

  /** Take what the service has as the present state. */
  async function adopt(state: FinishState): Promise<void> {
    const id = sizeIn(state.document)
    const laid = await layOut(state, id)
    saved.value = state
    sizeId.value = id
    draft.value = laid
    stale.value = false
  }

  /** The size in hand, if a document has it, else its first one. */
  function sizeIn({ sizes }: Finish): string {
    return sizes.some((one) => one.id === sizeId.value) ? sizeId.value : sizes[0]!.id
  }

  /**
   * Changes that could not be saved before the page was left are saved now, or as a copy. They are
   * let go of only when the service has them.
   */
  async function recover(state: FinishState): Promise<void> {
    const kept = keptDraft(state.id)
    if (!kept) return
    try {
      const named = await sendDraft(kept.document)
      if (named.draft === state.draft) return forgetDraft(state.id)
      if (kept.etag === state.etag) {
        draft.value = await layOut(named, sizeIn(kept.document))
        sizeId.value = draft.value.size_id
        await commit()
        if (!isDirty.value) notices.say('Changes that could not be saved last time have been restored.')
      } else {
        const name = `${kept.document.name.slice(0, 113)} (copy)`
        await post('/finishes', { draft: named.draft, name })
        forgetDraft(state.id)
        notices.say('Changes that could not be saved last time were kept as a copy on the shelf.')
      }
    } catch (error) {
      notices.tell(error)
      if (error instanceof Refused)
        notices.say('Changes that could not be saved last time are still kept in this browser.', true)
    }
  }

  /** Ask the service something about the draft and the size in hand. */
  function ask<T>(path: string, more: object = {}): Promise<T> {
    return postAbout<T>(draft.value!, path, { size_id: sizeId.value, ...more })
  }

  /** Take another size in hand, after all that is under way. */
  function workOn(id: string): Promise<void> {
    tryOut.value = null
    return queue.run(async () => {
      // It may have been removed by what came before.
      const isThere = document.value?.sizes.some((one) => one.id === id)
      if (!draft.value || !isThere || sizeId.value === id) return
      try {
        const laid = await layOut(draft.value, id)
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
      const now = draft.value
      const laid = wanted && now ? await layOut(now, sizeId.value, wanted, now) : null
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
    return queue.run(async () => {
      try {
        await whenReachable(async () => {
          if (!draft.value || saved.value?.id !== id) return
          const now = typeof wanted === 'function' ? wanted(draft.value) : wanted
          const laid = await layOut(draft.value, sizeId.value, now, draft.value)
          sizeId.value = laid.size_id
          draft.value = laid
          tried.value = null
          notices.say(laid.message)
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

  function beginDrag(): void {
    dragBase.value = draft.value
  }

  async function moveDrag(wanted: Edit, hurry: Promise<void>): Promise<void> {
    const base = dragBase.value
    if (!base) return
    const laid = await layOut(base, base.size_id, wanted, base)
    if (dragBase.value === base) draft.value = laid
    if (showsInPicture(wanted)) await Promise.race([promiseTimeout(DRAFT_PAUSE_MS), hurry])
  }

  async function putBack(): Promise<void> {
    if (dragBase.value) draft.value = dragBase.value
  }

  function finishDrag(): void {
    dragBase.value = null
  }

  /** Sliders show their own place; all else that they change is the picture, asked for apart. */
  function showsInPicture(wanted: Edit): boolean {
    return ['set_tone', 'set_border', 'set_watermark'].includes(wanted.kind)
  }

  /** A drag, or a slider's way: every move is an edit of where it began; its end is saved. */
  function drag(wanted: Edit): void {
    tryOut.value = null
    queue.drag(wanted)
  }

  async function endDrag(when: 'now' | 'after a pause' = 'now'): Promise<void> {
    if (!(await queue.end())) return
    if (when === 'now') await commit()
    else commitAfterPause()
  }

  // A release that the dragged thing did not hear of (it is gone, the window lost the pointer, a
  // field was left as it was found) ends the drag all the same.
  const endLeftDrag = () => queue.endSoon(LEFT_DRAG_MS, () => void endDrag())
  useEventListener(window, ['pointerup', 'pointercancel', 'blur'], endLeftDrag)
  useEventListener(window, 'focusout', endLeftDrag)

  /** A slider let go, moved by a key or typed: several such in a row are one revision. */
  function slide(wanted: Edit): Promise<void> {
    if (!dragging.value) return edit(wanted, 'after a pause')
    drag(wanted)
    return endDrag('after a pause')
  }

  const cancelDrag = queue.cancel

  /** Ask the service to move the finish through its history, after all that came before. */
  function go(path: string, body: Record<string, unknown> = {}): Promise<void> {
    return queue.run(async () => {
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
    forgetDraft(saved.value.id)
    await load(saved.value.id).catch(notices.tell)
  }

  /** Start a finish like this one but for an edit; returns its id. */
  async function startLike(wanted: Edit, name: string): Promise<string> {
    await settle()
    const laid = await layOut(draft.value!, sizeId.value, wanted, draft.value)
    const { id } = await postAbout<FinishState>(laid, '/finishes', { name })
    notices.say(laid.message)
    return id
  }

  /** Keep the draft that came too late as a finish of its own; returns its id. */
  async function keepAsCopy(): Promise<string | null> {
    if (!saved.value || !draft.value) return null
    const name = `${draft.value.document.name.slice(0, 113)} (copy)`
    try {
      const copy = await postAbout<FinishState>(draft.value, '/finishes', { name })
      forgetDraft(saved.value.id)
      return copy.id
    } catch (error) {
      notices.tell(error)
      return null
    }
  }

  /** Everything committed, whatever is still under way; false when it could not be. */
  async function settle(): Promise<boolean> {
    await endDrag()
    await queue.settled()
    await commit()
    return !isDirty.value
  }

  function toggleStep(step: Step): void {
    if (draft.value?.docket.find(({ key }) => key === step)?.lacks_photo) return
    void endDrag() // what was dragged may be gone with its step
    openStep.value = openStep.value === step ? null : step
  }

  return {
    saved,
    draft,
    document,
    layout,
    guides,
    held,
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
    isStageDrawing,
    ask,
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
    startLike,
    keepAsCopy,
    settle,
    toggleStep,
  }
})

