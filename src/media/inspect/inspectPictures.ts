import { transfer } from 'comlink'
import type { PictureInspector } from '../workers/inspect.protocol'
import type { InspectWork } from './inspectWork'
import { picturesAt } from './pictures'
import { stillOf } from './still'
import { wholeFrame } from './wholeFrame'

/** Small pictures, whole frames, and frames of a highlight. */
export function inspectPictures(work: InspectWork): PictureInspector {
  return {
    pictures: (channel, file, times, height, precision, onPicture) =>
      work.withSource(channel, file, (source, signal) =>
        picturesAt(source, times, height, precision, onPicture, signal, work.turn),
      ),
    async frame(file, t) {
      const bitmap = await work.sources.use(file, (source) => wholeFrame(source, t))
      return bitmap && transfer(bitmap, [bitmap])
    },
    still: stillOf,
  }
}
