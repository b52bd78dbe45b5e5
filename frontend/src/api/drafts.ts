// Drafts are sent to the service once and then named by their hash. One that it has forgotten is
// sent again, unseen.

import { applyPatch, type Operation } from 'fast-json-patch'

import { picture, post, Refused } from './client'
import type { DraftLaid, Edit, Finish, Laid } from './types'

/** A document, and the hash that names it. */
export interface Named {
  draft: string
  document: Finish
}

export async function sendDraft(document: Finish): Promise<Named> {
  const { draft } = await post<{ draft: string }>('/drafts', document)
  return { draft, document }
}

/** Do `ask` with a draft's name, after sending it again where the service has forgotten it. */
export async function about<T>(named: Named, ask: (draft: string) => Promise<T>): Promise<T> {
  try {
    return await ask(named.draft)
  } catch (error) {
    if (!(error instanceof Refused && error.isForgottenDraft)) throw error
    return ask((await sendDraft(named.document)).draft)
  }
}

export function postAbout<T>(named: Named, path: string, body: object): Promise<T> {
  return about(named, (draft) => post<T>(path, { draft, ...body }))
}

export function pictureOf(named: Named, body: object, signal?: AbortSignal): Promise<Blob | null> {
  return about(named, (draft) => picture('/bench/preview', { draft, ...body }, signal))
}

/** The cut-out of a size as a picture of its own. */
export async function maskOf(named: Named, size_id: string): Promise<Blob> {
  return (await about(named, (draft) => picture('/bench/mask', { draft, size_id })))!
}

/** The line round the subject of a size, as an SVG drawing. */
export async function cutLineOf(named: Named, size_id: string): Promise<Blob> {
  return (await about(named, (draft) => picture('/bench/cut-line', { draft, size_id })))!
}

/** A draft laid out, after an edit if there is one; of `held`, only what changed is sent. */
export async function layOut(
  named: Named,
  size_id: string,
  edit: Edit | null = null,
  held: Laid | null = null,
): Promise<Laid> {
  const since = held?.size_id === size_id ? held.draft : null
  const answer = await postAbout<DraftLaid>(named, '/bench/draft', { size_id, edit, since })
  const { laid, patch, ...told } = answer
  if (laid) return { ...laid, ...told }
  const { newDocument } = applyPatch(held!, patch as Operation[], false, false)
  return { ...newDocument, ...told }
}
