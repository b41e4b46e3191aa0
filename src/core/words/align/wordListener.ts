import type { AlignedWord } from './alignWords'
import { HEARD_RATE, hearWords, type Place, type WordDecoder } from './hearWords'

/**
 * A decoder has a fixed amount of memory and gives back none of what a grammar took: half an hour of short stretches
 * fills it. A new one is begun long before.
 */
const MOST_SECONDS = 300

/** Hears known words in stretches of sound, for as long as anybody likes, with one decoder after another. */
export class WordListener {
  private decoder: Promise<WordDecoder> | null = null
  private heardSeconds = 0

  constructor(
    private readonly load: () => Promise<WordDecoder>,
    private readonly place: Place,
  ) {}

  /** The decoder of the moment. Rejects when there is none to be had; the next call tries again. */
  ready(): Promise<WordDecoder> {
    return (this.decoder ??= this.load().catch((error: unknown) => {
      this.decoder = null
      throw error
    }))
  }

  /** As `Hear` in alignWords. A decoder that breaks is replaced once; rejects when the second breaks too. */
  async hear(pcm: Float32Array, fromMicros: number, words: readonly string[]): Promise<AlignedWord[] | null> {
    if (this.heardSeconds >= MOST_SECONDS) this.begin()
    this.heardSeconds += pcm.length / HEARD_RATE
    try {
      return await hearWords(await this.ready(), this.place, pcm, fromMicros, words)
    } catch {
      this.begin()
      return hearWords(await this.ready(), this.place, pcm, fromMicros, words)
    }
  }

  private begin(): void {
    this.decoder = null
    this.heardSeconds = 0
  }
}
