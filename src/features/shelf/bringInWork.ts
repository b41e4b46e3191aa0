import type { OtioCut } from '@/core/interchange/otio/readOtio'
import type { Filed } from '@/core/interchange/rackFile'
import type { Highlight } from '@/core/model/highlight'
import type { PassageId } from '@/core/model/ids'
import { newPassage } from '@/core/model/passage'
import type { Recording } from '@/core/model/recording'
import type { BackupRefusal } from '@/core/interchange/backup'
import type { ZipRefusal } from '@/media/bundle/openBundle'
import { readForeign } from '@/media/read/readForeign'
import { bringInEdits } from '@/store/bringIn'
import { isStorageFull } from '@/store/database'
import { createHighlight, editSession, loadEdit } from '@/store/highlights'
import { recordingsOnShelf } from '@/store/recordings'
import { newId } from '@/core/model/ids'
import { setPassages } from '@/edit/passages'
import { unreadMessage } from '@/shared/foreignFiles'
import { wording } from './wording'

/** Whether a file holds somebody's work, not footage. */
export const isWork = ({ name }: Pick<File, 'name'>) => /\.(zip|otio|brimble\.json)$/i.test(name)

export interface BroughtIn {
  highlights: Pick<Highlight, 'id' | 'name'>[]
  /** What a person should know, in words. */
  problems: string[]
}

/** Puts what a bundle or a timeline holds onto the Shelf. Nothing of what is there is changed. */
export async function bringInWork(file: File): Promise<BroughtIn> {
  return /\.otio$/i.test(file.name) ? bringInTimeline(file) : bringInBundle(file)
}

async function bringInBundle(file: File): Promise<BroughtIn> {
  const read = await readForeign(file, (reader) => reader.bundle(file))
  if (!read.ok) return { highlights: [], problems: [unreadMessage(file.name, read.reason)] }
  const opened = read.value
  if (!opened.ok) return { highlights: [], problems: [zipRefusal(file.name, opened.reason, opened.detail)] }
  const problems: string[] = []
  const rack = opened.rack === null ? null : await readRack(opened.rack)
  if (rack && !rack.ok) problems.push(wording.whatHoldsForTheRack(file.name))
  try {
    const highlights = await bringInEdits({
      edits: opened.edits,
      bytes: new Map(opened.files.map(({ of, blob }) => [of.id, blob])),
      filed: rack?.ok ? rack.filed : null,
    })
    return { highlights, problems }
  } catch (error) {
    if (!isStorageFull(error)) throw error
    return {
      highlights: [],
      problems: [wording.thereIsNoRoomIn(file.name)],
    }
  }
}

async function readRack(text: string): Promise<{ ok: true; filed: Filed } | { ok: false }> {
  const file = new Blob([text])
  const read = await readForeign(file, (reader) => reader.rack(file, []))
  return read.ok ? read.value : { ok: false }
}

/** Why a zip was not brought in, and what to do about it. */
export function zipRefusal(name: string, reason: ZipRefusal | BackupRefusal, detail: string): string {
  const file = `“${name}”`
  const why: Record<ZipRefusal | BackupRefusal, string> = {
    'not-a-zip': wording.itIsNotAZip,
    'too-many-entries': wording.itHoldsMoreFilesThan,
    'bad-name': wording.itHoldsAFileWhose(detail),
    'too-large': wording.whatItHoldsIsToo(detail),
    bomb: wording.aFileInItWould(detail),
    'missing-entry': wording.aFileThatItLists(detail),
    damaged: wording.itIsDamaged(detail),
    'not-json': wording.itsListCannotBeRead,
    'not-a-bundle': wording.itIsNoBundleAnd,
    'not-a-backup': wording.itIsAZipBut(detail),
    'newer-version': wording.itWasMadeByA(detail),
    'bad-edit': wording.anEditInItCannot(detail),
  }
  return wording.wasNotBroughtInNothing(file, why[reason])
}

async function bringInTimeline(file: File): Promise<BroughtIn> {
  const refused = (why: string) => ({ highlights: [], problems: [wording.wasNotBroughtIn(file.name, why)] })
  const outcome = await readForeign(file, (reader) => reader.timeline(file))
  if (!outcome.ok) return { highlights: [], problems: [unreadMessage(file.name, outcome.reason)] }
  const read = outcome.value
  if (!read.ok)
    return refused(
      {
        'too-large': wording.itIsLargerThanAny,
        'not-json': wording.itIsNotAnOpentimelineio,
        'not-a-timeline': wording.itIsNotAnOpentimelineioTimeline,
        'no-clips': wording.itHasNoVideoClips,
      }[read.reason],
    )
  const shelf = await recordingsOnShelf()
  if (read.edit)
    return { highlights: await bringInEdits({ edits: [read.edit], bytes: new Map(), filed: null }), problems: [] }
  const moments = read.cuts.flatMap((cut) => {
    const recording = shelf.find((r) => r.fileName.toLowerCase() === cut.fileName.toLowerCase())
    return recording ? [{ cut, recording }] : []
  })
  const missing = [...new Set(read.cuts.map((c) => c.fileName))].filter((name) =>
    moments.every((f) => f.cut.fileName !== name),
  )
  if (moments.length === 0)
    return refused(
      wording.noneOfItsRecordingsIs(
        missing
          .slice(0, 3)
          .map((m) => `“${m}”`)
          .join(', '),
      ),
    )
  const problems =
    missing.length > 0
      ? [wording.notOnTheShelfThose(file.name, missing.map((m) => `“${m}”`).join(', '), missing.length)]
      : []
  return { highlights: [await highlightOfCuts(read.name, moments)], problems }
}

/** A highlight with these cuts; regions and layout as the first recording's newest highlight has them. */
async function highlightOfCuts(
  name: string,
  found: readonly { cut: OtioCut; recording: Recording }[],
): Promise<Highlight> {
  const [first] = found
  if (!first) throw new RangeError('found: empty')
  const made = await createHighlight(first.recording, {
    name,
    inMicros: first.cut.inMicros,
    outMicros: first.cut.outMicros,
  })
  const loaded = await loadEdit(made.id)
  if (!loaded.ok) return made
  const session = editSession(loaded)
  const [like] = made.passages
  if (!like) return made
  const passages = found.map(({ cut, recording }) => ({
    ...newPassage({
      id: newId<PassageId>(),
      recordingId: recording.id,
      inMicros: Math.min(cut.inMicros, recording.durationMicros - 1),
      outMicros: Math.min(cut.outMicros, recording.durationMicros),
      setupId: like.setupId,
      layoutId: like.layoutId,
    }),
    speedPercent: cut.speedPercent,
    join: cut.join,
  }))
  setPassages(session, {
    passages,
    recordings: [...new Map(found.map(({ recording }) => [recording.id, recording])).values()],
  })
  await session.flush()
  return made
}
