import { randomUUID } from 'node:crypto'

/**
 * A stand-in for an outlet: it takes files as a real one would, keeps what it was told of them and throws their bytes
 * away. The interface is described in docs/outside-services.md.
 */

export const STAND_IN_LIMITS = { bytes: 250_000_000, title: 100, text: 2200 }

/** It answers no sooner than a real one would. */
const ANSWERS_AFTER_MS = 700

export const FAULTS = ['none', 'offline', 'busy', 'too-large', 'refused', 'signed-out'] as const
export type Fault = (typeof FAULTS)[number]

export interface TakenPost {
  id: string
  outlet: string
  title: string
  text: string
  fileName: string
  sizeBytes: number
  at: string
}

export interface Sent {
  /** The same key is the same post, however often it is sent. */
  key: string
  outlet: string
  title: string
  text: string
  fileName: string
  body: ReadableStream<Uint8Array> | null
}

export type Answer = { status: number; body: { id?: string; error?: string } }

/** What a real service would have in its database; kept while the server runs. */
interface State {
  taken: TakenPost[]
  byKey: Map<string, TakenPost>
  fault: Fault
}

const held = globalThis as { brimbleStandIn?: State }
const state = (): State => (held.brimbleStandIn ??= { taken: [], byKey: new Map(), fault: 'none' })

export const takenPosts = (): readonly TakenPost[] => state().taken
export const faultNow = (): Fault => state().fault
export function setFault(fault: Fault): void {
  state().fault = fault
}
export function forgetPosts(): void {
  held.brimbleStandIn = undefined
}

const ERRORS: Record<Exclude<Fault, 'none' | 'offline'>, { status: number; error: string }> = {
  busy: { status: 503, error: 'Too much is going on here. Try again later.' },
  'too-large': { status: 413, error: 'The file is larger than 250 MB.' },
  refused: { status: 422, error: 'This video breaks a rule of this outlet.' },
  'signed-out': { status: 401, error: 'The sign-in has run out. Sign in again.' },
}

/** Takes a file. Rejects, as a network does, while it is set to be offline. `wait`: for tests. */
export async function takePost(
  sent: Sent,
  wait: (ms: number) => Promise<void> = (ms) => new Promise((r) => setTimeout(r, ms)),
): Promise<Answer> {
  const earlier = state().byKey.get(sent.key)
  if (earlier) return { status: 200, body: { id: earlier.id } }
  await wait(ANSWERS_AFTER_MS)
  const { fault } = state()
  if (fault === 'offline') throw new Error('offline')
  if (fault !== 'none') return { status: ERRORS[fault].status, body: { error: ERRORS[fault].error } }
  if (sent.title.length > STAND_IN_LIMITS.title || sent.text.length > STAND_IN_LIMITS.text)
    return {
      status: 400,
      body: { error: `Titles have ${STAND_IN_LIMITS.title} characters at most, texts ${STAND_IN_LIMITS.text}.` },
    }
  const sizeBytes = await sizeOf(sent.body, STAND_IN_LIMITS.bytes)
  if (sizeBytes === null) return { status: 413, body: { error: ERRORS['too-large'].error } }
  if (sizeBytes === 0) return { status: 400, body: { error: 'There is no file.' } }
  // Between the first look and here the same post may have come in again.
  const meanwhile = state().byKey.get(sent.key)
  if (meanwhile) return { status: 200, body: { id: meanwhile.id } }
  const post: TakenPost = {
    id: randomUUID(),
    outlet: sent.outlet,
    title: sent.title,
    text: sent.text,
    fileName: sent.fileName,
    sizeBytes,
    at: new Date().toISOString(),
  }
  state().taken.push(post)
  state().byKey.set(sent.key, post)
  return { status: 201, body: { id: post.id } }
}

/** How many bytes come; null when more than `most` do. */
async function sizeOf(body: ReadableStream<Uint8Array> | null, most: number): Promise<number | null> {
  let size = 0
  for (const reader = body?.getReader(); reader;) {
    const { done, value } = await reader.read()
    if (done) break
    size += value.byteLength
    if (size > most) {
      await reader.cancel()
      return null
    }
  }
  return size
}
