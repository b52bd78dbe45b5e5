// Talking to the service. Refusals become `Refused` with the service's sentence; when the
// service does not answer at all, `Unreachable`.

import type { Problem } from './types'

export class Refused extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail)
  }

  get isForgottenDraft(): boolean {
    return this.problem.title === 'UnknownDraft'
  }

  get isStale(): boolean {
    return this.problem.status === 412
  }

  get isDiskFull(): boolean {
    return this.problem.status === 507
  }
}

export class Unreachable extends Error {
  constructor() {
    super('Lucky Margin does not answer.')
  }
}

async function send(path: string, init: RequestInit): Promise<Response> {
  let response: Response
  try {
    response = await fetch(`/api${path}`, init)
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') throw error
    throw new Unreachable()
  }
  if (!response.ok) throw new Refused(await problemOf(response))
  return response
}

/** The body of an answer; one that breaks off on its way is no answer. */
async function bodyOf<T>(response: Response): Promise<T> {
  try {
    return (await response.json()) as T
  } catch {
    throw new Unreachable()
  }
}

async function problemOf(response: Response): Promise<Problem> {
  try {
    return (await response.json()) as Problem
  } catch {
    const detail = `The service answered ${response.status}; try again.`
    return { type: 'about:blank', title: 'Unknown', status: response.status, detail }
  }
}

function withBody(method: string, body: unknown): RequestInit {
  return { method, body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } }
}

export async function get<T>(path: string): Promise<T> {
  return bodyOf(await send(path, {}))
}

export async function post<T>(path: string, body: unknown = {}): Promise<T> {
  return bodyOf(await send(path, withBody('POST', body)))
}

/** A request whose answer has no body. */
export async function order(path: string): Promise<void> {
  await send(path, withBody('POST', {}))
}

export async function put<T>(path: string, body: unknown): Promise<T> {
  return bodyOf(await send(path, withBody('PUT', body)))
}

export async function remove(path: string): Promise<void> {
  await send(path, { method: 'DELETE' })
}

/** A picture, or null when a newer request of the channel took its place. `signal` calls it off. */
export async function picture(path: string, body: unknown, signal?: AbortSignal): Promise<Blob | null> {
  const response = await send(path, { ...withBody('POST', body), signal })
  return response.status === 204 ? null : await wholeBlob(response)
}

async function wholeBlob(response: Response): Promise<Blob> {
  try {
    return await response.blob()
  } catch {
    throw new Unreachable()
  }
}

/** Send a file as the body, telling how much of it has gone (0 to 1). */
export interface Following {
  /** Told the share that is done (0 to 1), now and then. */
  progress?: (share: number) => void
  /** Stops the work; its promise is then rejected. */
  signal?: AbortSignal
}

/** The work was called off. */
export class Cancelled extends Error {}

/** Send a file. */
export function upload<T>(path: string, file: Blob, { progress, signal }: Following = {}): Promise<T> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest()
    request.open('POST', `/api${path}`)
    request.setRequestHeader('Content-Type', 'application/octet-stream')
    request.upload.onprogress = (event) => progress?.(event.loaded / Math.max(event.total, 1))
    request.onerror = () => reject(new Unreachable())
    request.onload = () => {
      try {
        const body = JSON.parse(request.responseText)
        if (request.status < 300) resolve(body as T)
        else reject(new Refused(body as Problem))
      } catch {
        reject(new Unreachable())
      }
    }
    request.onabort = () => reject(new Cancelled())
    signal?.addEventListener('abort', () => request.abort())
    request.send(file)
  })
}
