import type { ChosenFile } from '@/shared/recordings/chosenFiles'

const CAPTIONS = /\.(vtt|srt)$/i

/** Whether a name stands for the same footage: all before the ending, and a language tag before that, such as `.en`. */
const stem = (fileName: string) => fileName.replace(/\.[^.]+$/, '').toLocaleLowerCase()
const isBeside = (captions: string, recording: string) =>
  stem(captions) === stem(recording) || stem(captions).replace(/\.[a-z]{2,3}(-[a-z0-9]+)?$/, '') === stem(recording)

/** Chosen files with the file of captions that came with each; captions that belong to none are left over. */
export function withTextsBeside(chosen: readonly ChosenFile[]): {
  recordings: { chosen: ChosenFile; text: File | null }[]
  left: File[]
} {
  const texts = chosen.map((c) => c.file).filter((f) => CAPTIONS.test(f.name))
  const recordings = chosen
    .filter((c) => !CAPTIONS.test(c.file.name))
    .map((c) => ({ chosen: c, text: texts.find((t) => isBeside(t.name, c.file.name)) ?? null }))
  return { recordings, left: texts.filter((t) => recordings.every((r) => r.text !== t)) }
}
