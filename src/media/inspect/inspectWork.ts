import type { Source } from '../source/openSource'
import { OpenSources, type SourceFile } from '../source/openSources'
import { Channels } from './channels'

/** Pictures wait no longer than this for sound that has to be decoded first. */
const LONGEST_WAIT_MS = 1000

/** What all that looks into files shares: the files that are open, and whose turn it is. */
export class InspectWork {
  readonly sources = new OpenSources()
  readonly channels = new Channels()
  /** The last listening; null or a figure when it is over. */
  listening: Promise<unknown> = Promise.resolve()

  /**
   * Resolves when small pictures and levels may be made: what is found in the sound is wanted first, and is not long
   * in coming.
   */
  readonly turn = async (): Promise<void> => {
    await Promise.race([this.listening, new Promise((resolve) => setTimeout(resolve, LONGEST_WAIT_MS))])
  }

  /** Runs `work` on an open source when it may be; a later call on the same channel stops it. */
  withSource<T>(
    channel: string,
    file: SourceFile,
    work: (source: Source, signal: AbortSignal) => Promise<T>,
  ): Promise<T> {
    return this.channels.run(channel, async (signal) => {
      await this.turn()
      return this.sources.use(file, (source) => work(source, signal))
    })
  }
}
