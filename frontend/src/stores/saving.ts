// Saving the draft of the finish in hand: at once or after a pause, again when the disk has room or
// the service is back, and kept in this browser meanwhile.

import { useEventListener } from '@vueuse/core'
import { computed, ref, watch, type Ref } from 'vue'

import { get, put, Refused } from '../api/client'
import { about } from '../api/drafts'
import type { FinishState, Laid } from '../api/types'
import { forgetDraft, keepDraft } from './keptDrafts'
import { useNotices } from './notices'

/** A burst of key presses or typed numbers is one revision. */
const BURST_MS = 700
/** How long to wait for somebody to make room on a full disk. */
const RETRY_MS = 4000

/** `stale` is raised when somebody else has saved meanwhile. */
export function createSaving(
  saved: Ref<FinishState | null>,
  draft: Ref<Laid | null>,
  stale: Ref<boolean>,
) {
  const notices = useNotices()
  const saving = ref(false)
  const isDirty = computed(() => !!saved.value && !!draft.value && draft.value.draft !== saved.value.draft)
  let committing: Promise<void> | null = null
  /** The draft that was to be saved last. */
  let lastSent = ''
  let burst: ReturnType<typeof setTimeout> | undefined

  function commitAfterPause(): void {
    clearTimeout(burst)
    burst = setTimeout(commit, BURST_MS)
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
      while (isDirty.value && saved.value && draft.value) {
        const { id, etag } = saved.value
        const sent = draft.value
        lastSent = sent.draft
        const state = await about(sent, (name) => put<FinishState>(`/finishes/${id}`, { etag, draft: name }))
        forgetDraft(id, sent.document)
        if (saved.value?.id !== id) return // another finish was opened meanwhile
        saved.value = { ...state, draft: sent.draft }
        notices.diskFull = false
      }
    } catch (error) {
      keepForLater()
      if (error instanceof Refused && error.isStale) await recogniseOwnSave()
      else if (error instanceof Refused && error.isDiskFull) trySavingLater()
      else notices.tell(error)
    } finally {
      saving.value = false
    }
  }

  /** A save that the service has although its answer got lost is no other person's. */
  async function recogniseOwnSave(): Promise<void> {
    const id = saved.value?.id
    const now = await get<FinishState>(`/finishes/${id}`).catch(notices.tell)
    if (!now || saved.value?.id !== id) return
    if (now.draft !== lastSent) {
      stale.value = true
      return
    }
    saved.value = now
    commitAfterPause()
  }

  function trySavingLater(): void {
    notices.diskFull = true
    burst = setTimeout(commit, RETRY_MS)
  }

  function keepForLater(): void {
    if (!saved.value || !draft.value) return
    keepDraft(saved.value.id, { etag: saved.value.etag, document: draft.value.document })
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

  /** Let go of what was to be saved after a pause. */
  const forget = () => clearTimeout(burst)

  return { saving, isDirty, commit, commitAfterPause, forget }
}
