import { claimWhile } from '../ranks/turns'
import { lineUp } from '@/core/sound/lineUp'
import { quietly } from '@/diagnostics/note'
import type { SoundInspector } from '../workers/inspect.protocol'
import type { InspectWork } from './inspectWork'
import { hearAround, loudnessOf } from './loudnessOf'
import { soundLevels, type LevelSpan } from './soundLevels'
import { SoundMemory } from './soundMemory'
import type { SourceFile } from '../source/openSources'

/** What may be asked for next is heard when nothing was asked for this long. */
const CALM_MS = 1000
const AHEAD = 'ahead'

/** Levels, loudness, and where one sound lies in another. */
export function inspectSound(work: InspectWork): SoundInspector {
  const memory = new SoundMemory()
  const levels = (channel: string, file: SourceFile, spans: LevelSpan[]) =>
    work.withSource(channel, file, async (source, signal) => {
      const levels = []
      for (const span of spans) {
        if (levels.length > 0) await work.turn()
        levels.push(await soundLevels(source, span, signal))
      }
      return levels
    })
  return {
    levels,
    async lineUp(file, span, other, otherSpan) {
      const [short = []] = await levels('line up', file, [span])
      const [long = []] = await levels('line up other', other, [otherSpan])
      return lineUp(
        short.map((l) => l.rms),
        long.map((l) => l.rms),
      )
    },
    loudness(edit, files, speechOf) {
      work.channels.stop([AHEAD])
      const listening = work.channels.run('loudness', (signal) =>
        claimWhile('findings', () => loudnessOf(edit, files, speechOf, work.sources, memory, signal)),
      )
      work.listening = listening.catch(() => null)
      const hearAhead = async (signal: AbortSignal) => {
        await new Promise((resolve) => setTimeout(resolve, CALM_MS))
        if (!signal.aborted) await hearAround(edit, files, work.sources, memory, signal)
      }
      void listening.then((loudness) => loudness && work.channels.run(AHEAD, hearAhead)).catch(quietly('hearing ahead'))
      return listening
    },
  }
}
