import type { Recording } from '@/core/model/recording'
import { explain } from '@/diagnostics/note'
import { layOutClip, type LaidOut } from '@/shared/looks/layOutClip'
import { addChosenFile, type AddOptions } from '@/shared/recordings/addRecordings'
import type { ChosenFile } from '@/shared/recordings/chosenFiles'
import { keepMessage, probeMessage } from '@/shared/recordings/wording'
import { isCurable } from '@/shared/recordings/workingCopy'
import { wording } from './wording'

/** What became of a file. `problem` in words; `isCurable`: a copy that
 * ffmpeg makes may do; `notKept`: why its bytes are there in this tab only, or null. */
export type TakenIn =
  | { ok: true; recording: Recording; laidOut: LaidOut | null; notKept: string | null }
  | { ok: false; problem: string; isCurable: boolean }

/**
 * Takes a recording in: onto the Shelf, with the captions that came with it, and laid out where its setup has a
 * recipe that is used by itself. Never rejects.
 */
export async function takeIn(chosen: ChosenFile, text: File | null = null, options: AddOptions = {}): Promise<TakenIn> {
  try {
    const result = await addChosenFile(chosen, { ...options, captions: text })
    if (!result.ok)
      return {
        ok: false,
        problem: probeMessage(result.fileName, result.failure),
        isCurable: isCurable(result.failure),
      }
    const { recording } = result
    return {
      ok: true,
      recording,
      laidOut: await layOutClip(recording, result.file),
      notKept: keepMessage(recording.fileName, result.kept),
    }
  } catch (error) {
    return {
      ok: false,
      problem: wording.couldNotBeAdded(chosen.file.name, explain('adding a recording', error)),
      isCurable: false,
    }
  }
}
