/** A word, seconds from the start of the sound, and how sure it is, 0..1. */
export interface HeardWord {
  text: string
  from: number
  to: number
  confidence: number
}

/** What stands for silence and noise, and the number of a second way to say a word. */
const isWord = (name: string) => /^[\p{L}\p{N}']/u.test(name)
const bare = (name: string) => name.replace(/\(\d+\)$/, '')
const within = (p: number) => Math.min(1, Math.max(0, p))

/** Reads what `pocketsphinx_continuous -time yes` writes: a line of text, then a line for each word of it. */
export function readContinuous(text: string): HeardWord[] {
  return text.split('\n').flatMap((line) => {
    const [, name = '', from, to, p] = /^(\S+) ([\d.]+) ([\d.]+) ([\d.]+)$/.exec(line.trim()) ?? []
    if (!isWord(name)) return []
    return [{ text: bare(name), from: Number(from), to: Number(to), confidence: within(Number(p)) }]
  })
}

interface Segment {
  t: string
  b: number
  d: number
  p: number
  w?: Segment[]
}

/** Reads what `pocketsphinx single` writes: an object of JSON a line, `w` the words in it. */
export function readSingle(text: string): HeardWord[] {
  return text
    .split('\n')
    .filter((line) => line.startsWith('{'))
    .flatMap((line) => (JSON.parse(line) as Segment).w ?? [])
    .filter(({ t }) => isWord(t))
    .map(({ t, b, d, p }) => ({ text: bare(t), from: b, to: b + d, confidence: within(p) }))
}
