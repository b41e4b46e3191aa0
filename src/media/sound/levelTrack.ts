import type { Edit } from '@/core/model/edit'
import type { SpeechOf } from '@/core/sound/ducking'
import { LEVELS_PER_SECOND } from '@/core/sound/levelFigure'
import { levelOf } from '@/core/sound/levels'
import { Mixer, SoundSources } from './mixer'
import { OUTPUT_SAMPLE_RATE } from './stereo'

const FRAMES = OUTPUT_SAMPLE_RATE / LEVELS_PER_SECOND

/**
 * Mean level, linear, of each thirtieth of a second of what is heard of an edit: what level figures are drawn from.
 * Throws when `signal` is aborted or a file cannot be read.
 */
export async function levelTrack(
  edit: Edit,
  files: ReadonlyMap<string, Blob>,
  speechOf: SpeechOf,
  signal: AbortSignal,
): Promise<Float32Array> {
  const sources = new SoundSources(files)
  try {
    const mixer = new Mixer(edit, speechOf, sources)
    const levels = new Float32Array(Math.ceil(mixer.lengthFrames / FRAMES))
    let at = 0
    // Blocks are a tenth of a second: each holds whole thirtieths.
    for await (const block of mixer.blocks(0)) {
      signal.throwIfAborted()
      for (let from = 0; from < block.length; from += 2 * FRAMES)
        levels[at++] = levelOf([block], from, Math.min(block.length, from + 2 * FRAMES)).rms
    }
    return levels
  } finally {
    sources.close()
  }
}
