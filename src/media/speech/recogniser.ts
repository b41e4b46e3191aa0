import { z } from 'zod'
import { readCaptions } from '@/core/interchange/captionFile'
import type { SpokenWord } from '@/core/model/words'
import type { Recording } from '@/core/model/recording'
import type { SpeechStretch } from '@/core/sound/ducking'
import type { Micros } from '@/core/time/micros'
import { timedTokens } from '@/core/words/tokens'
import { nullOnError } from '@/diagnostics/note'
import { pocketsphinxRecogniser } from './pocketsphinxRecogniser'

/**
 * What was made out of a stretch of speech: recording time. `words` is empty where their times are not known; `voice`
 * where it is not known who speaks.
 */
export interface Recognised {
  fromMicros: Micros
  toMicros: Micros
  text: string
  words: SpokenWord[]
  voice: string | null
}

/** Turns what is heard into text. Nothing of it leaves the machine. */
export interface Recogniser {
  id: string
  /** Whether it only stands in for one that listens; said wherever it is offered. */
  simulated: boolean
  /** Whether it can make anything of a recording. */
  canDo: (recording: Recording) => Promise<boolean>
  /**
   * `speech`: where somebody was heard speaking. Rejects when it fails, with an AbortError when `signal` says so; the
   * captions that are there stay. `onShare`: 0..1, rising.
   */
  recognise: (
    recording: Recording,
    file: Blob,
    speech: readonly SpeechStretch[],
    watch?: { onShare: (share: number) => void; signal: AbortSignal },
  ) => Promise<Recognised[]>
}

/** Always there: an empty line for each stretch of speech, to be written or pasted into. */
const timedBlanks: Recogniser = {
  id: 'blanks',
  simulated: false,
  canDo: ({ sound }) => Promise.resolve(sound !== null),
  recognise: (_, __, speech) =>
    Promise.resolve(
      speech.map(({ fromMicros, toMicros }) => ({ fromMicros, toMicros, text: '', words: [], voice: null })),
    ),
}

/**
 * What the simulated recogniser knows: the demo footage that a text lies beside, as public/demo/shelf.json lists it.
 */
const demoTexts = z.object({ recordings: z.array(z.object({ id: z.string(), captions: z.string().optional() })) })

async function demoTextOf(id: string): Promise<string | null> {
  if (!id.startsWith('demo-')) return null
  const { recordings } = demoTexts.parse(await (await fetch('/demo/shelf.json')).json())
  return recordings.find((r) => r.id === id)?.captions ?? null
}

/**
 * Answers for the demo footage alone, from the text that lies beside it: what a recogniser gives can be tried without
 * one.
 */
const simulatedRecogniser: Recogniser = {
  id: 'simulated',
  simulated: true,
  canDo: async ({ id }) => (await demoTextOf(id).catch(nullOnError('speech recognition'))) !== null,
  recognise: async ({ id, fileName }, _, speech) => {
    const text = await demoTextOf(id)
    const read =
      text === null ? null : await readCaptions(new Uint8Array(await (await fetch(`/demo/${text}`)).arrayBuffer()))
    if (!read?.ok) throw new Error(`The simulated recogniser has no answer for “${fileName}”`)
    const heard = ({ fromMicros, toMicros }: { fromMicros: Micros; toMicros: Micros }) =>
      speech.some((s) => s.fromMicros < toMicros && s.toMicros > fromMicros)
    return read.cues.filter(heard).map((cue): Recognised => ({
      ...cue,
      words: timedTokens(cue).map(({ from, to, fromMicros, toMicros }) => ({
        text: cue.text.slice(from, to),
        fromMicros,
        toMicros,
      })),
    }))
  },
}

/** In the order in which they are offered; the simulated one only where none is there that listens. */
const RECOGNISERS: readonly Recogniser[] = [timedBlanks, pocketsphinxRecogniser, simulatedRecogniser]

/** The recognisers that can make something of a recording; one that only stands in where no other listens. */
export async function usableRecognisers(recording: Recording): Promise<readonly Recogniser[]> {
  const can = await Promise.all(RECOGNISERS.map((r) => r.canDo(recording)))
  const all = RECOGNISERS.filter((_, i) => can[i])
  const listens = all.some((r) => r.id !== 'blanks' && !r.simulated)
  return all.filter((r) => !r.simulated || !listens)
}
