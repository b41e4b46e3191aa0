import { LIVELINESS_STEP_MICROS, type Liveliness } from '@/core/detect/liveliness'
import { coverage, PART_MICROS, partCount, type Analysis } from '@/core/detect/analysis'
import type { Waveform } from '@/core/detect/waveform'
import type { Moment } from '@/core/model/spotting'
import type { Micros } from '@/core/time/micros'
import { palette } from '@/ui/theme'
import type { PictureCache } from './pictureCache'

/** What is drawn on a band: a stretch of the recording across the whole width, sizes in CSS px. */
export interface Band {
  ctx: CanvasRenderingContext2D
  width: number
  height: number
  fromMicros: Micros
  toMicros: Micros
}

export const PICTURES_HEIGHT = 54
const PICTURE_WIDTH = 96

export const xOf = ({ width, fromMicros, toMicros }: Pick<Band, 'width' | 'fromMicros' | 'toMicros'>, t: Micros) =>
  ((t - fromMicros) / (toMicros - fromMicros)) * width

export function clear({ ctx, width, height }: Band): void {
  ctx.fillStyle = palette.sheet
  ctx.fillRect(0, 0, width, height)
}

const columns = { peaks: new Uint8Array(0), rms: new Uint8Array(0) }

/** Loudness is drawn on a scale on which speech and shouts both have room. */
const scaled = (level: number) => Math.sqrt(level / 255)

/** The waveform between two heights; red where it reaches full scale. */
export function drawWaveform(band: Band, waveform: Waveform, top: number, bottom: number): void {
  const { ctx, width, fromMicros, toMicros } = band
  const count = Math.ceil(width)
  if (columns.peaks.length !== count)
    Object.assign(columns, { peaks: new Uint8Array(count), rms: new Uint8Array(count) })
  waveform.columns(fromMicros, (toMicros - fromMicros) / width, columns.peaks, columns.rms)
  const middle = (top + bottom) / 2
  const half = (bottom - top) / 2
  const pass = (colour: string, row: Uint8Array, wanted: (peak: number) => boolean) => {
    ctx.fillStyle = colour
    for (let x = 0; x < count; x++) {
      const value = row[x] ?? 0
      if (value === 0 || !wanted(columns.peaks[x] ?? 0)) continue
      const h = Math.max(0.5, scaled(value) * half)
      ctx.fillRect(x, middle - h, 1, 2 * h)
    }
  }
  pass('#A9B8A6', columns.peaks, (peak) => peak < 253)
  pass(palette.haw, columns.peaks, (peak) => peak >= 253)
  pass(palette.leaf, columns.rms, () => true)
}

/** Liveliness as a hill behind the waveform. */
export function drawLiveliness({ ctx, width, height, fromMicros, toMicros }: Band, { score }: Liveliness): void {
  const perPixel = (toMicros - fromMicros) / width
  // The liveliest place of the recording reaches the top, so that a calm recording is not a flat line.
  const top = score.reduce((a, b) => Math.max(a, b), 0.15)
  ctx.beginPath()
  ctx.moveTo(0, height)
  for (let x = 0; x <= width; x++) {
    const from = Math.floor((fromMicros + x * perPixel) / LIVELINESS_STEP_MICROS)
    const to = Math.max(from + 1, Math.floor((fromMicros + (x + 1) * perPixel) / LIVELINESS_STEP_MICROS))
    let most = 0
    for (let i = from; i < to; i++) most = Math.max(most, score[i] ?? 0)
    ctx.lineTo(x, height - (most / top) * (height - 6))
  }
  ctx.lineTo(width, height)
  ctx.closePath()
  ctx.fillStyle = 'rgba(201, 138, 27, 0.30)'
  ctx.fill()
  ctx.strokeStyle = palette.straw
  ctx.lineWidth = 1
  ctx.stroke()
}

/** Slanted lines over what has not been listened to yet. */
export function drawUnknown(band: Band, analysis: Analysis, hasSound: boolean): void {
  const { ctx, height } = band
  const series = hasSound ? analysis.sound : analysis.pictures
  if ((hasSound ? coverage(analysis).sound : coverage(analysis).pictures) === 1) return
  ctx.strokeStyle = palette.line
  ctx.lineWidth = 1
  for (let index = 0; index < partCount(analysis.durationMicros); index++) {
    if (series.has(index)) continue
    const from = Math.max(0, xOf(band, index * PART_MICROS))
    const to = Math.min(band.width, xOf(band, Math.min(analysis.durationMicros, (index + 1) * PART_MICROS)))
    ctx.beginPath()
    for (let x = Math.ceil(from / 8) * 8; x < to; x += 8) {
      ctx.moveTo(x, height)
      ctx.lineTo(x + 6, height - 6)
    }
    ctx.stroke()
  }
}

/** Pictures along the top: each stands for the moment at its left edge. */
export function drawPictures({ ctx, width, fromMicros, toMicros }: Band, pictures: PictureCache): void {
  const slot = (PICTURE_WIDTH * (toMicros - fromMicros)) / width
  ctx.fillStyle = palette.mat
  ctx.fillRect(0, 0, width, PICTURES_HEIGHT)
  for (let n = Math.floor(fromMicros / slot); n * slot < toMicros; n++) {
    const bitmap = pictures.at(n * slot, Math.max(slot, PART_MICROS / 2))
    const x = ((n * slot - fromMicros) / (toMicros - fromMicros)) * width
    if (bitmap) ctx.drawImage(bitmap, x, 0, PICTURE_WIDTH - 1, PICTURES_HEIGHT)
  }
}

/** Where moments lie. Dropped ones are left out; the one picked up is framed. */
export function drawMoments(band: Band, moments: readonly Moment[], selected: string | null): void {
  const { ctx, height, width } = band
  for (const m of moments) {
    const from = xOf(band, m.inMicros)
    const to = Math.max(from + 2, xOf(band, m.outMicros))
    if (m.state === 'dropped' || to < 0 || from > width) continue
    const kept = m.state === 'kept' || m.state === 'cut'
    ctx.fillStyle = kept ? 'rgba(46, 94, 62, 0.26)' : 'rgba(74, 100, 114, 0.14)'
    ctx.fillRect(from, 0, to - from, height)
    ctx.fillStyle = kept ? palette.leaf : palette.slate
    ctx.fillRect(from, 0, to - from, 4)
    if (m.id !== selected) continue
    ctx.strokeStyle = palette.ink
    ctx.lineWidth = 1.5
    ctx.strokeRect(from, 1, to - from, height - 2)
  }
}

/** Hard cuts between shots, as ticks along the bottom. */
export function drawCuts(band: Band, cuts: readonly Micros[]): void {
  const { ctx, height } = band
  ctx.fillStyle = palette.slate
  for (const t of cuts) if (t >= band.fromMicros && t <= band.toMicros) ctx.fillRect(xOf(band, t), height - 9, 1.5, 9)
}
