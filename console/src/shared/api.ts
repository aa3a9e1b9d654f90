import createClient from 'openapi-fetch'
import { measuredClock } from './live/measuredClock'
import { tagged } from './live/tagged'
import type { paths } from './schema'
import type { Receipt } from './types'

/** The service said no; the message is its own sentence. */
export class ApiProblem extends Error {
  readonly status: number

  /** Which refusal it is, for a page that goes on from it (RFC 9457); most have none. */
  readonly type: string | undefined

  constructor(status: number, sentence: string, type?: string) {
    super(sentence)
    this.status = status
    this.type = type
  }
}

/** Something between us and the service says that nobody answers behind it; what was sent may have been kept. */
export class NoAnswer extends Error {
  constructor(status: number) {
    super(`What stands before the service says that it does not answer (${status}).`)
  }
}

// How a gateway says so (RFC 9110 15.6.3 to 15.6.5); the service itself never answers these without a sentence.
const saidByAGateway = [502, 503, 504]

/** The one place that fetches. The cookie signs every call; the types come from the interface's own description. */
export const api = createClient<paths>({ credentials: 'same-origin' })

api.use(tagged())

const clock = measuredClock()
api.use(clock.heard)

/** Now on the service's clock: waits and limits are reckoned there, whatever this device believes. */
export function nowAtService(): number {
  return Date.now() + (clock.behind() ?? 0)
}

/** What is said of this device's clock beside an entry that it dates. */
export function clockNow(): { sentAt: string; clockBehindMs: number | null } {
  return { sentAt: new Date().toISOString(), clockBehindMs: clock.behind() }
}

type Answer<T> = { data?: T; error?: unknown; response: Response }

export function unwrap<T>(answer: Answer<T>): T {
  const { status, ok } = answer.response
  if (ok) return answer.data as T // answers without content have none; their T is undefined
  const sentence = sentenceOf(answer)
  if (sentence === undefined && saidByAGateway.includes(status)) throw new NoAnswer(status)
  throw new ApiProblem(status, sentence ?? `The service answered ${status}.`, typeOf(answer))
}

function sentenceOf({ error }: Answer<unknown>): string | undefined {
  return error && typeof error === 'object' && 'detail' in error && typeof error.detail === 'string' ? error.detail : undefined
}

function typeOf({ error }: Answer<unknown>): string | undefined {
  const type = error && typeof error === 'object' && 'type' in error ? error.type : undefined
  return typeof type === 'string' && type.startsWith('urn:nailcrow:') ? type : undefined
}

/** A file is sent as it is, which the typed client does not do. */
export async function sendFile<T>(path: string, file: File | null, type: string): Promise<T> {
  const response = await fetch(path, { method: 'POST', body: file, headers: { 'content-type': type }, credentials: 'same-origin' })
  return read<T>(response)
}

async function read<T>(response: Response): Promise<T> {
  if (response.ok) return unwrap<T>({ data: await response.json(), response })
  return unwrap<T>({ error: await response.json().catch(() => undefined), response })
}

/** A picture under an id of its own: sent twice, it is kept once. */
export async function sendPhoto(
  number: number,
  id: string,
  { picture, step, of }: { picture: Blob; step?: string; of?: string },
): Promise<Receipt> {
  const about = new URLSearchParams({ ...(step ? { step } : {}), ...(of ? { of } : {}) })
  const path = `/api/tickets/${number}/photos/${id}?${about}`
  const response = await fetch(path, {
    method: 'PUT',
    body: picture,
    headers: { 'content-type': 'image/jpeg' },
    credentials: 'same-origin',
  })
  return read<Receipt>(response)
}

/** A signature under an id of its own, over what was shown: sent twice, it is kept once. */
export async function sendSignature(
  number: number,
  id: string,
  picture: Blob,
  { name, seen, statement }: { name: string; seen: string; statement: string },
): Promise<Receipt> {
  const asked = new URLSearchParams({ name: name.trim(), seen, ...(statement.trim() ? { statement: statement.trim() } : {}) })
  const response = await fetch(`/api/tickets/${number}/signatures/${id}?${asked}`, {
    method: 'PUT',
    body: picture,
    headers: { 'content-type': 'image/png' },
    credentials: 'same-origin',
  })
  return read<Receipt>(response)
}

export const isSignedOut = (error: unknown): boolean => error instanceof ApiProblem && error.status === 401

/** No answer of the service's: nothing is known of what became of the message. */
export const isOutOfContact = (error: unknown): boolean => error instanceof TypeError || error instanceof NoAnswer
