import type { Recording } from '@/core/model/recording'
import { keepTextBeside } from '@/store/captionTexts'
import { layOutClip, type LaidOut } from '../batch/layOutClip'
import { addChosenFile, type AddOptions } from './addRecordings'
import type { ChosenFile } from './chosenFiles'
import { keepMessage, probeMessage } from './messages'

/** What became of a file. `problem` in words; `kept` gives one, or null, once a copy of the file has been kept. */
export type TakenIn = { ok: true; recording: Recording; laidOut: LaidOut | null; kept: Promise<string | null> } | { ok: false; problem: string }

/** Takes a recording in: onto the Shelf, with the captions that came with it, and laid out where its setup has a recipe that is used by itself. Never rejects. */
export async function takeIn(chosen: ChosenFile, text: File | null = null, options: AddOptions = {}): Promise<TakenIn> {
  try {
    const result = await addChosenFile(chosen, options)
    if (!result.ok) return { ok: false, problem: probeMessage(result.fileName, result.failure) }
    const { recording } = result
    if (text) await keepTextBeside(recording.id, text)
    return { ok: true, recording, laidOut: await layOutClip(recording, chosen.file), kept: result.kept.then((kept) => keepMessage(recording.fileName, kept)) }
  } catch (error) {
    return { ok: false, problem: `“${chosen.file.name}” could not be added: ${error instanceof Error ? error.message : String(error)}` }
  }
}
