import { oneFrame, onFrame } from '@/core/cut/passages'
import type { Passage } from '@/core/model/passage'
import type { Recording } from '@/core/model/recording'
import { passagePartsFor } from '@/store/highlights'
import { storedFile } from '@/store/recordings'
import { addRecords } from '@/edit/records'
import { addChosenFile } from '@/shared/recordings/addRecordings'
import type { ChosenFile } from '@/shared/recordings/chosenFiles'
import { probeMessage } from '@/shared/recordings/wording'
import { useBenchContext } from './benchContext'
import { wording } from './wording'

/**
 * A passage of the recording that was brought in, with the setup and layout that suit it; or what went wrong, in
 * words.
 */
export type BroughtIn = { ok: true; passage: Passage } | { ok: false; problem: string }

/** What of a recording is wanted, recording time. */
export type CutSpan = Pick<Passage, 'inMicros' | 'outMicros'>

/** A span at the recording's frames, a frame long at least. */
function onFrames(recording: Recording, { inMicros, outMicros }: CutSpan): CutSpan {
  const from = Math.min(onFrame(recording, inMicros), recording.durationMicros - oneFrame(recording))
  return {
    inMicros: from,
    outMicros: Math.min(recording.durationMicros, Math.max(from + oneFrame(recording), onFrame(recording, outMicros))),
  }
}

/**
 * Makes another recording, or a file that is put on the Shelf, ready to be played in the highlight; the highlight
 * itself is not changed.
 */
export function useBringIn(): {
  bringIn: (recording: Recording, span?: CutSpan) => Promise<BroughtIn>
  bringInFile: (chosen: ChosenFile) => Promise<BroughtIn>
} {
  const { session, player, files } = useBenchContext()
  const bringIn = async (recording: Recording, span?: CutSpan): Promise<BroughtIn> => {
    const stored = await storedFile(recording.id)
    if (!stored.ok)
      return {
        ok: false,
        problem:
          stored.reason === 'needs-permission'
            ? wording.theBrowserWantsYourPermission(recording.fileName)
            : wording.isMissingOpenOneOf(recording.fileName),
      }
    files.set(recording.id, stored.file)
    const { passage, setup, layout } = await passagePartsFor(session.value, recording)
    addRecords(session, { recordings: [recording], setups: setup ? [setup] : [], layouts: layout ? [layout] : [] })
    const opened = await player.open(session.value, files)
    return opened.ok
      ? { ok: true, passage: span ? { ...passage, ...onFrames(recording, span) } : passage }
      : { ok: false, problem: wording.canNoLongerBeRead(opened.fileName) }
  }
  const bringInFile = async (chosen: ChosenFile): Promise<BroughtIn> => {
    const added = await addChosenFile(chosen)
    return added.ok ? bringIn(added.recording) : { ok: false, problem: probeMessage(added.fileName, added.failure) }
  }
  return { bringIn, bringInFile }
}
