// Drafts that could not be saved, kept in this browser until the service has them.

import type { Finish } from '../api/types'

export interface KeptDraft {
  /** The state of the finish that the draft was made from. */
  etag: number
  document: Finish
}

const keyOf = (id: string) => `lucky-margin-draft-${id}`

export function keepDraft(id: string, draft: KeptDraft): void {
  localStorage.setItem(keyOf(id), JSON.stringify(draft))
}

/** The draft kept of a finish; null without one, or when what is kept is none. */
export function keptDraft(id: string): KeptDraft | null {
  const kept = localStorage.getItem(keyOf(id))
  try {
    return kept ? (JSON.parse(kept) as KeptDraft) : null
  } catch {
    return null
  }
}

/** Let go of the draft of a finish, now that the service has it; another one stays. */
export function forgetDraft(id: string, saved?: Finish): void {
  const kept = keptDraft(id)
  if (!saved || !kept || JSON.stringify(kept.document) === JSON.stringify(saved)) {
    localStorage.removeItem(keyOf(id))
  }
}
