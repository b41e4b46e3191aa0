import type { PostFailure } from '@/core/model/post'

/** What is sent to an outlet. `key`: the same key is the same post, however often it is sent. */
export interface Sending {
  key: string
  outletName: string
  title: string
  text: string
  fileName: string
  file: Blob
}

export type SendResult = { ok: true; remoteId: string } | { ok: false; reason: PostFailure; detail: string }

/** An outlet as an outside service. A real one is written against this; see docs/outside-services.md. */
export interface OutletService {
  /** Never rejects: what goes wrong is an answer. */
  send: (sending: Sending) => Promise<SendResult>
}

const REASONS: Record<number, PostFailure> = {
  400: 'text-too-long',
  401: 'signed-out',
  413: 'too-large',
  422: 'refused',
  429: 'busy',
  502: 'offline',
  503: 'busy',
  504: 'offline',
}

/** The stand-in that ships: the application's own server, which takes files and throws them away. */
export const standInOutlet: OutletService = {
  async send({ key, outletName, title, text, fileName, file }) {
    const asked = new URLSearchParams({ outlet: outletName, title, text, file: fileName })
    const answer = await fetch(`/api/stand-in/outlet/posts?${asked}`, {
      method: 'POST',
      headers: { 'Idempotency-Key': key },
      body: file,
    }).catch(() => null)
    if (!answer) return { ok: false, reason: 'offline', detail: '' }
    const body = (await answer.json().catch(() => ({}))) as { id?: string; error?: string }
    if (answer.ok && body.id) return { ok: true, remoteId: body.id.slice(0, 200) }
    return { ok: false, reason: REASONS[answer.status] ?? 'busy', detail: body.error ?? '' }
  },
}
