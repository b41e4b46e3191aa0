import { z } from 'zod'
import type { ProbeFailure } from '@/media/inspect/probe'
import { nullOnError } from '@/diagnostics/note'

const ADDRESS = '/api/working-copy'

const line = z.union([
  z.object({ seconds: z.number(), ofSeconds: z.number().nullable() }),
  z.object({ id: z.string(), fromHdr: z.boolean() }),
  z.object({ problem: z.string() }),
])
const refusal = z.object({ refused: z.enum(['busy', 'no-room', 'no-picture']) })

/** How far a copy is: 0..1 of the recording, and about how long it will still take; null while that is not known. */
export interface CopyProgress {
  share: number | null
  secondsLeft: number | null
}

export type MadeCopy =
  | { ok: true; file: File; fromHdr: boolean }
  | { ok: false; reason: 'busy' | 'no-room' | 'no-picture' | 'cancelled' }
  | { ok: false; reason: 'failed'; detail: string }

/** Reasons for which a recording is refused here and that an ffmpeg can do something about. */
const CURABLE: ReadonlySet<ProbeFailure['reason']> = new Set([
  'undecodable-codec',
  'high-dynamic-range',
  'unread-container',
  'no-video-track',
])
export const isCurable = (failure: ProbeFailure) => CURABLE.has(failure.reason)

let known: Promise<boolean> | null = null

/** Whether there is an ffmpeg on this machine that makes copies; asked once. */
export function canMakeCopies(): Promise<boolean> {
  return (known ??= fetch(ADDRESS)
    .then(async (answer) => answer.ok && z.object({ ffmpeg: z.boolean() }).parse(await answer.json()).ffmpeg)
    .catch(nullOnError('looking for ffmpeg'))
    .then(Boolean))
}

/** A copy of a recording in H.264 and AAC, made by the ffmpeg on this machine. Never rejects. */
export async function makeCopy(
  file: File,
  onProgress: (progress: CopyProgress) => void,
  signal: AbortSignal,
): Promise<MadeCopy> {
  try {
    const answer = await fetch(ADDRESS, { method: 'POST', body: file, signal })
    if (!answer.ok || !answer.body) {
      const said = refusal.safeParse(await answer.json().catch(() => null))
      return said.success
        ? { ok: false, reason: said.data.refused }
        : { ok: false, reason: 'failed', detail: String(answer.status) }
    }
    const from = performance.now()
    for await (const said of linesOf(answer.body)) {
      if ('problem' in said) return { ok: false, reason: 'failed', detail: said.problem }
      if ('id' in said) return { ok: true, file: await fetchCopy(said.id, file, signal), fromHdr: said.fromHdr }
      const share = said.ofSeconds === null ? null : Math.min(1, said.seconds / said.ofSeconds)
      const took = (performance.now() - from) / 1000
      onProgress({ share, secondsLeft: share ? (took / share) * (1 - share) : null })
    }
    return { ok: false, reason: 'failed', detail: 'the server went away' }
  } catch (error) {
    if (signal.aborted) return { ok: false, reason: 'cancelled' }
    return { ok: false, reason: 'failed', detail: error instanceof Error ? error.message : String(error) }
  }
}

async function fetchCopy(id: string, { name, lastModified }: File, signal: AbortSignal): Promise<File> {
  const address = `${ADDRESS}/file?id=${encodeURIComponent(id)}`
  try {
    const answer = await fetch(address, { signal })
    if (!answer.ok) throw new Error(`the copy: ${answer.status}`)
    return new File([await answer.blob()], name, { lastModified })
  } catch (error) {
    // The server has room for one copy: it need not keep this one for anybody.
    await fetch(address, { method: 'DELETE' }).catch(nullOnError('giving up a copy'))
    throw error
  }
}

async function* linesOf(body: ReadableStream<Uint8Array>): AsyncGenerator<z.infer<typeof line>> {
  const reader = body.pipeThrough(new TextDecoderStream() as ReadableWritablePair<string, Uint8Array>).getReader()
  let left = ''
  for (;;) {
    const { done, value } = await reader.read()
    if (done) return
    const lines = (left + value).split('\n')
    left = lines.pop() ?? ''
    for (const text of lines) yield line.parse(JSON.parse(text))
  }
}
