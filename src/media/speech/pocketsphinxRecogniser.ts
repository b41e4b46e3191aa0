import { z } from 'zod'
import { linesOfWords, type HeardWord } from '@/core/words/linesOfWords'
import { spansToHear } from '@/core/words/spansToHear'
import { nullOnError } from '@/diagnostics/note'
import { samplesOf } from './aligner'
import type { Recogniser } from './recogniser'

const ADDRESS = '/api/hear'
/** Sent at one time; the server takes a minute. */
const LONGEST_SPAN_MICROS = 45_000_000

const answer = z.object({
  words: z.array(z.object({ text: z.string(), from: z.number(), to: z.number(), confidence: z.number() })),
})

let known: Promise<boolean> | null = null

/** Whether PocketSphinx is installed where this page is served from; asked once. */
function isThere(): Promise<boolean> {
  return (known ??= fetch(ADDRESS)
    .then(async (said) => said.ok && z.object({ pocketsphinx: z.boolean() }).parse(await said.json()).pocketsphinx)
    .catch(nullOnError('looking for PocketSphinx'))
    .then(Boolean))
}

/** PocketSphinx on this machine, run by the application's own server: a draft, in English. */
export const pocketsphinxRecogniser: Recogniser = {
  id: 'pocketsphinx',
  simulated: false,
  canDo: async ({ sound }) => sound !== null && (await isThere()),
  recognise: async ({ id, originMicros }, file, speech, watch) => {
    const spans = spansToHear(speech, LONGEST_SPAN_MICROS)
    const words: HeardWord[] = []
    for (const [n, { fromMicros, toMicros }] of spans.entries()) {
      watch?.signal.throwIfAborted()
      watch?.onShare(n / spans.length)
      const samples = await samplesOf({ id, file, originMicros }, fromMicros, toMicros)
      const said = await fetch(ADDRESS, { method: 'POST', body: samples, signal: watch?.signal })
      if (said.status === 409) throw new Error('PocketSphinx is listening to something else: try again when it is done')
      if (!said.ok) throw new Error(`PocketSphinx did not answer (${said.status})`)
      for (const { text, from, to, confidence } of answer.parse(await said.json()).words)
        words.push({
          text: ` ${text === 'i' || text.startsWith("i'") ? `I${text.slice(1)}` : text}`,
          fromMicros: fromMicros + Math.round(from * 1e6),
          toMicros: fromMicros + Math.round(to * 1e6),
          confidence,
        })
    }
    return linesOfWords(words).map((line) => ({ ...line, voice: null }))
  },
}
