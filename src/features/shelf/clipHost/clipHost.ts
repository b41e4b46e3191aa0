import { z } from 'zod'
import { wording } from '../wording'

const clip = z.object({
  address: z.string().min(1).max(2000),
  title: z.string().max(500),
  recordedAt: z.iso.datetime(),
  sizeBytes: z.number().int().nonnegative(),
})
/** A clip as its host lists it. */
export type HostedClip = z.infer<typeof clip>

export type ClipFailure = 'offline' | 'busy' | 'signed-out' | 'not-there' | 'broke-off' | 'too-large' | 'cancelled'
export type Listed =
  { ok: true; months: string[]; month: string; clips: HostedClip[] } | { ok: false; reason: ClipFailure }
export type Fetched = { ok: true; file: File; title: string; recordedAt: string } | { ok: false; reason: ClipFailure }

/**
 * A host of clips as an outside service. A real one is written against this; see docs/outside-services.md. Neither
 * ever rejects: what goes wrong is an answer.
 */
export interface ClipHost {
  /**
   * The months that have clips, newest first, as `2026-11`, and the clips of one of them: the newest where none is
   * named.
   */
  list: (month?: string) => Promise<Listed>
  /** The file at an address. `onProgress`: the share that is here, 0 to 1. */
  fetch: (address: string, onProgress: (share: number) => void, signal: AbortSignal) => Promise<Fetched>
}

/** Longer files are recordings, not clips. */
const MAX_BYTES = 4e9
const MAX_LISTED = 5000

const list = z.object({
  months: z.array(z.string().regex(/^\d{4}-\d{2}$/)).max(1200),
  month: z.string(),
  clips: z.array(clip).max(MAX_LISTED),
})

const REASONS: Record<number, ClipFailure> = {
  401: 'signed-out',
  403: 'signed-out',
  404: 'not-there',
  410: 'not-there',
  413: 'too-large',
  502: 'offline',
  504: 'offline',
}
const reasonOf = ({ status }: Response): ClipFailure => REASONS[status] ?? 'busy'

/** The stand-in that ships: the application's own server, which hands out the demo's recordings. */
export const standInClipHost: ClipHost = {
  async list(month) {
    const answer = await fetch(
      `/api/stand-in/clips${month === undefined ? '' : `?${new URLSearchParams({ month })}`}`,
    ).catch(() => null)
    if (!answer) return { ok: false, reason: 'offline' }
    if (!answer.ok) return { ok: false, reason: reasonOf(answer) }
    const read = list.safeParse(await answer.json().catch(() => null))
    return read.success ? { ok: true, ...read.data } : { ok: false, reason: 'busy' }
  },
  async fetch(address, onProgress, signal) {
    try {
      const answer = await fetch(`/api/stand-in/clips/file?${new URLSearchParams({ address })}`, { signal })
      if (!answer.ok || !answer.body) return { ok: false, reason: reasonOf(answer) }
      const size = Number(answer.headers.get('x-clip-bytes'))
      if (size > MAX_BYTES) return { ok: false, reason: 'too-large' }
      let here = 0
      const counted = answer.body.pipeThrough(
        new TransformStream<Uint8Array, Uint8Array>({
          transform(piece, to) {
            here += piece.byteLength
            if (here > MAX_BYTES) throw new RangeError('too large')
            onProgress(size > 0 ? Math.min(1, here / size) : 0)
            to.enqueue(piece)
          },
        }),
      )
      // A response of a stream becomes a blob that lies on disk where it is large.
      const blob = await new Response(counted).blob()
      if (here !== size) return { ok: false, reason: 'broke-off' }
      const recordedAt = answer.headers.get('x-clip-recorded-at') ?? new Date().toISOString()
      const name = /filename="([^"]+)"/.exec(answer.headers.get('content-disposition') ?? '')?.[1] ?? 'clip.mp4'
      const file = new File([blob], name, {
        type: answer.headers.get('content-type') ?? 'video/mp4',
        lastModified: Date.parse(recordedAt),
      })
      return { ok: true, file, title: decodeURIComponent(answer.headers.get('x-clip-title') ?? name), recordedAt }
    } catch (error) {
      return {
        ok: false,
        reason: whyBroken(error, signal),
      }
    }
  },
}

/** What went wrong, and what to do about it. */
export const CLIP_MESSAGES: Record<ClipFailure, string> = {
  offline: wording.theClipHostCannotBe,
  busy: wording.theClipHostIsToo,
  'signed-out': wording.theSignInAtThe,
  'not-there': wording.thereIsNoClipAt,
  'broke-off': wording.theLineBrokeOffBefore,
  'too-large': wording.thisFileIsLargerThan,
  cancelled: wording.cancelledNothingWasAdded,
}

function whyBroken(error: unknown, signal: AbortSignal): 'cancelled' | 'too-large' | 'broke-off' {
  if (signal.aborted) return 'cancelled'
  return error instanceof RangeError ? 'too-large' : 'broke-off'
}
