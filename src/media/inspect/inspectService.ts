import { chooseEncoders } from '../render/encoders'
import { claimWhile } from '../ranks/turns'
import type { InspectWorker } from '../workers/inspect.protocol'
import { inspectPictures } from './inspectPictures'
import { inspectSound } from './inspectSound'
import { InspectWork } from './inspectWork'
import { lookOver } from './lookOver'
import { mendClock } from './mendClock'
import { probe, probeSoundFile } from './probe'

/** What the inspecting worker offers: looking into files without playing or rendering them. */
export function inspectService(): InspectWorker {
  const work = new InspectWork()
  return {
    probe,
    mendClock,
    probeSound: probeSoundFile,
    encoders: chooseEncoders,
    ...inspectPictures(work),
    ...inspectSound(work),
    findings: (edit, known, files) =>
      work.channels.run('findings', (signal) => claimWhile('findings', () => lookOver(edit, known, files, signal))),
    stop: async (channels) => work.channels.stop(channels),
  }
}
