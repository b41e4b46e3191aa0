import type { Edit } from '../../model/edit'
import { join as joinSchema, type Join } from '../../model/join'
import type { Micros } from '../../time/micros'
import { parseJson } from '../parseJson'
import { readEdit } from '../readEdit'
import { isClip, isTrack, timeline, type Clip, type RationalTime, type Timeline } from './otioSchema'
import { writeOtio } from './writeOtio'

/** Larger files are not timelines of a highlight. */
export const MAX_OTIO_CHARACTERS = 64_000_000

/** A cut as a timeline has it: recording time. */
export interface OtioCut {
  fileName: string
  inMicros: Micros
  outMicros: Micros
  speedPercent: number
  join: Join
}

export type OtioRead =
  | {
      ok: true
      name: string
      cuts: OtioCut[]
      /** The very edit it was written from, where nothing in the timeline was changed since. */ edit: Edit | null
    }
  | { ok: false; reason: 'too-large' | 'not-json' | 'not-a-timeline' | 'no-clips' }

/**
 * Reads the cuts of an OpenTimelineIO timeline off its first video track with clips; of one that {@link writeOtio}
 * wrote, the whole edit.
 */
export function readOtio(text: string): OtioRead {
  if (text.length > MAX_OTIO_CHARACTERS) return { ok: false, reason: 'too-large' }
  const json = parseJson(text)
  if (!json.ok) return { ok: false, reason: 'not-json' }
  const parsed = timeline.safeParse(json.raw)
  if (!parsed.success) return { ok: false, reason: 'not-a-timeline' }
  const cuts = cutsOf(parsed.data)
  if (cuts.length === 0) return { ok: false, reason: 'no-clips' }
  return { ok: true, name: parsed.data.name?.trim() || 'Timeline', cuts, edit: editOf(parsed.data, cuts) }
}

function cutsOf({ tracks }: Timeline): OtioCut[] {
  const track = tracks.children.filter(isTrack).find((t) => t.kind === 'Video' && t.children.some(isClip))
  const children = track?.children ?? []
  return children.flatMap((child, n): OtioCut[] => {
    if (!isClip(child)) return []
    const range = child.source_range ?? referenceOf(child)?.available_range
    const fileName = fileNameOf(child)
    if (!range || fileName === '') return []
    const scalar = child.effects.find((e) => e.OTIO_SCHEMA.startsWith('LinearTimeWarp'))?.time_scalar ?? 1
    const speedPercent = Math.min(400, Math.max(25, Math.round(scalar * 100)))
    const inMicros = Math.max(0, toMicrosOf(range.start_time))
    const outMicros = inMicros + Math.round((toMicrosOf(range.duration) * speedPercent) / 100)
    return outMicros > inMicros
      ? [{ fileName, inMicros, outMicros, speedPercent, join: joinAfter(children[n + 1]) }]
      : []
  })
}

const toMicrosOf = ({ value, rate }: RationalTime): Micros => Math.round((value * 1e6) / rate)

function referenceOf(clip: Clip) {
  return clip.media_reference ?? clip.media_references?.[clip.active_media_reference_key ?? 'DEFAULT_MEDIA'] ?? null
}

/** The last part of where its media lies: folders of another machine say nothing here. */
function fileNameOf(clip: Clip): string {
  const url = referenceOf(clip)?.target_url ?? clip.name ?? ''
  const last = url.split(/[/\\]/).at(-1) ?? ''
  try {
    return decodeURIComponent(last).slice(0, 1000)
  } catch {
    return last.slice(0, 1000)
  }
}

function joinAfter(next: unknown): Join {
  const { OTIO_SCHEMA, metadata, in_offset, out_offset } = (next ?? {}) as {
    OTIO_SCHEMA?: string
    metadata?: { brimble?: { join?: unknown } }
    in_offset?: RationalTime
    out_offset?: RationalTime
  }
  if (OTIO_SCHEMA !== 'Transition.1' || !in_offset || !out_offset) return { kind: 'cut' }
  const own = joinSchema.safeParse(metadata?.brimble?.join)
  if (own.success) return own.data
  const lengthMicros = Math.min(5_000_000, Math.max(0, toMicrosOf(in_offset) + toMicrosOf(out_offset)))
  return { kind: 'dissolve', lengthMicros, easing: 'even' }
}

/** The edit that a timeline carries, if its cuts are still those that the edit would be written with. */
function editOf({ metadata }: Timeline, cuts: readonly OtioCut[]): Edit | null {
  const carried = metadata.brimble as { edit?: unknown } | undefined
  const read = carried && readEdit(carried.edit)
  const [shape] = read?.ok ? read.edit.highlight.shapes : []
  if (!read?.ok || !shape) return null
  const own = timeline.safeParse(JSON.parse(writeOtio(read.edit, shape)))
  return own.success && JSON.stringify(cutsOf(own.data)) === JSON.stringify(cuts) ? read.edit : null
}
