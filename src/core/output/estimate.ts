import type { Render, RenderSettings } from '../model/render'
import type { Shape } from '../model/shape'
import { framesPerSecond } from '../time/frameRate'
import { sizeOfFile } from './renderSettings'

/** So many of the latest files say what this machine does. */
const LOOKED_AT = 30

export interface Estimate {
  bytes: number
  /** Null until something has been rendered on this machine. */
  seconds: number | null
}

type Wanted = { shape: Shape; settings: RenderSettings }

const megapixels = (of: Wanted) => (sizeOfFile(of).width * sizeOfFile(of).height) / 1e6
const nominalBytes = ({ settings }: Wanted, seconds: number) =>
  ((settings.videoBitrate + settings.audioBitrate) * seconds) / 8

/**
 * What a file of so many seconds will come to, and how long it will take, by what the latest `past` ones, newest
 * first, came to on this machine.
 */
export function estimate(wanted: Wanted, seconds: number, past: readonly Render[]): Estimate {
  const finished = past
    .flatMap((r) =>
      r.state.kind === 'finished' && r.state.file.frames > 0 && r.settings.coding === wanted.settings.coding
        ? [{ render: r, file: r.state.file }]
        : [],
    )
    .slice(0, LOOKED_AT)
  const pace = median(finished.map(({ render, file }) => file.tookMs / (file.frames * megapixels(render))))
  const alike = finished.filter(({ render }) => render.settings.constantQuality === wanted.settings.constantQuality)
  const share = median(
    alike.map(
      ({ render, file }) =>
        file.sizeBytes / nominalBytes(render, file.frames / framesPerSecond(render.settings.frameRate)),
    ),
  )
  const frames = seconds * framesPerSecond(wanted.settings.frameRate)
  return {
    bytes: Math.round(nominalBytes(wanted, seconds) * (share ?? 1)),
    seconds: pace === null ? null : (pace * frames * megapixels(wanted)) / 1000,
  }
}

function median(values: readonly number[]): number | null {
  const sorted = values.filter(Number.isFinite).sort((a, b) => a - b)
  return sorted[Math.floor(sorted.length / 2)] ?? null
}
