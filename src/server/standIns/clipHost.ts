import { createReadStream } from 'node:fs'
import { stat } from 'node:fs/promises'
import { join } from 'node:path'
import { Readable } from 'node:stream'

/**
 * A stand-in for a clip host: it lists the demo's recordings by month as a real one would list clips, and hands them
 * out by their address. The interface is described in docs/outside-services.md.
 */

export const CLIP_FAULTS = ['none', 'offline', 'busy', 'signed-out', 'breaks-off'] as const
export type ClipFault = (typeof CLIP_FAULTS)[number]

export interface HostedClip {
  /** Where it is, on a host that does not exist. */
  address: string
  title: string
  /** ISO 8601. */
  recordedAt: string
  sizeBytes: number
}

/** The demo's recordings as clips; they lie in `public/demo`. */
const CLIPS = [
  {
    slug: 'winch-cable-sings',
    file: 'field-winch.mp4',
    title: 'The winch cable sings',
    recordedAt: '2026-11-21T09:12:00Z',
  },
  { slug: 'dusk-landing', file: 'field-dusk.mp4', title: 'Last landing at dusk', recordedAt: '2026-11-20T16:02:00Z' },
  { slug: 'dawn-on-the-field', file: 'field-dawn.mp4', title: 'Dawn on the field', recordedAt: '2026-10-31T06:48:00Z' },
  {
    slug: 'heat-three',
    file: 'ridge-cup-stream.mp4',
    title: 'Ridge Cup, heat 3, whole',
    recordedAt: '2026-10-24T19:30:00Z',
  },
  {
    slug: 'thermals',
    file: 'reading-thermals-webinar.mp4',
    title: 'Reading thermals',
    recordedAt: '2026-09-22T18:00:00Z',
  },
] as const

const HOST = 'https://clips.example/'
const FOLDER = join(process.cwd(), 'public', 'demo')

const held = globalThis as { brimbleClipFault?: ClipFault }

export const clipFaultNow = (): ClipFault => held.brimbleClipFault ?? 'none'
export function setClipFault(fault: ClipFault): void {
  held.brimbleClipFault = fault
}

/** The months that have clips, newest first, as `2026-11`. */
export function clipMonths(): string[] {
  return [...new Set(CLIPS.map((c) => c.recordedAt.slice(0, 7)))]
}

/** The clips of a month, newest first; none for a month that has none. */
export async function clipsOf(month: string): Promise<HostedClip[]> {
  const wanted = CLIPS.filter((c) => c.recordedAt.startsWith(month) && month.length === 7)
  return Promise.all(
    wanted.map(async ({ slug, file, title, recordedAt }) => ({
      address: HOST + slug,
      title,
      recordedAt,
      sizeBytes: (await stat(join(FOLDER, file))).size,
    })),
  )
}

/** The bytes of the clip at an address; null where there is none. Set to break off, it ends half-way, as lines do. */
export async function clipAt(
  address: string,
): Promise<{ clip: HostedClip; fileName: string; body: ReadableStream<Uint8Array> } | null> {
  const known = CLIPS.find((c) => HOST + c.slug === address)
  if (!known) return null
  const path = join(FOLDER, known.file)
  const { size } = await stat(path)
  const clip = { address, title: known.title, recordedAt: known.recordedAt, sizeBytes: size }
  const end = clipFaultNow() === 'breaks-off' ? Math.floor(size / 2) : size
  return {
    clip,
    fileName: `${known.slug}.mp4`,
    body: Readable.toWeb(createReadStream(path, { end: end - 1 })) as ReadableStream<Uint8Array>,
  }
}
