import type { VideoSample } from 'mediabunny'
import type { Composition, Feed, FootageStep } from '@/core/compose/composition'
import { footageKey, footageOf, momentKey, textsOf } from '@/core/compose/composition'
import { areaOf, contains, scaleRect, type Rect } from '@/core/geometry/rect'
import type { ImageFileId } from '@/core/model/ids'
import type { Micros } from '@/core/time/micros'
import { quietly } from '@/diagnostics/note'
import { CropReader, HALVED_FROM, type DrawCrop } from './cropReader'
import { loadFonts } from '../fonts/loadFonts'
import { drawSteps, type DrawFootage } from './drawSteps'
import { forgetSettings } from './drawText'

/** A composition and the canvas that it fills, whatever the canvas's size. */
export interface Target {
  ctx: OffscreenCanvasRenderingContext2D
  composition: Composition
}

/** What compositions are drawn from: decoded frames and pictures, borrowed; null where there is none. */
export interface Material {
  frameOf: (feed: Feed) => VideoSample | null
  /** How many of a frame's pixels lie in one of its recording's, each way: below 1 for a copy; 1 where not given. */
  scaleOf?: (feed: Feed) => number
  /** A picture; of one that moves, what it shows at `micros` of its own time. */
  imageOf: (id: ImageFileId, micros: Micros) => ImageBitmap | null
  /** Heights 0..1 of a level figure at an output time. */
  figureAt: (t: Micros) => readonly number[]
}

/** Draws compositions: the one way in which preview, stills and render are drawn. */
export class Composer {
  private readonly reader = new CropReader()
  /** What has been read since the reader began. Frames are told apart, not drawn from, once they may be closed. */
  private read: { frame: VideoSample; feed: string; crop: Rect; small: boolean; draw: DrawCrop }[] = []

  /** `missingFonts`: whether a text whose font cannot be had is an error, or is drawn in what stands in for it. */
  constructor(private readonly missingFonts: 'fail' | 'stand-in' = 'fail') {}

  /**
   * Draws every target from `material`, borrowed until this is done. All pixels are read first, then drawn at one go:
   * a canvas on screen never shows half a picture. Nothing is drawn where `isOver` says, once they are read, that
   * nobody wants the picture any more. Not for concurrent use.
   */
  async draw(
    targets: readonly Target[],
    { frameOf, scaleOf, imageOf, figureAt }: Material,
    isOver: () => boolean = () => false,
  ): Promise<void> {
    const crops = await this.readCrops(targets, frameOf, scaleOf ?? (() => 1))
    if (isOver()) return
    for (const { text, style } of targets.flatMap((t) => textsOf(t.composition)))
      if (await this.loadFonts(text, style)) forgetSettings()
    for (const { ctx, composition } of targets)
      drawSteps(ctx, composition, { footage: (step) => crops.get(footageKey(step)) ?? null, imageOf, figureAt })
  }

  private async readCrops(
    targets: readonly Target[],
    frameOf: Material['frameOf'],
    scaleOf: (feed: Feed) => number,
  ): Promise<Map<string, DrawFootage>> {
    const cropOf = ({ feed, crop }: FootageStep) => {
      const scale = scaleOf(feed)
      return scale === 1 ? crop : scaleRect(crop, scale, scale)
    }
    // The largest first: a crop that lies in one that was read already, such as the whole frame beside a preview,
    // needs no reading of its own.
    const steps = targets.flatMap((t) => footageOf(t.composition)).sort((a, b) => areaOf(b.crop) - areaOf(a.crop))
    const large = new Set(
      targets.flatMap((t) =>
        footageOf(t.composition)
          .filter((step) => !isSmallOn(t, step, cropOf(step)))
          .map(footageKey),
      ),
    )
    const sourceOf = (step: FootageStep, frame: VideoSample) =>
      this.read.find(
        (r) =>
          r.frame === frame &&
          r.feed === momentKey(step.feed) &&
          contains(r.crop, cropOf(step)) &&
          !(r.small && large.has(footageKey(step))),
      )
    // While a region is dragged, the frames stay: what was read of them for the picture before serves for this one,
    // once all of it has been read.
    const frames = steps.flatMap((step) => frameOf(step.feed) ?? [])
    const stays = this.read.some((r) => frames.includes(r.frame))
    if (!steps.every((step) => isNothingOr(frameOf(step.feed), (frame) => sourceOf(step, frame) !== undefined))) {
      this.reader.begin()
      this.read = []
    }
    const crops = new Map<string, DrawFootage>()
    for (const step of steps) {
      const frame = frameOf(step.feed)
      if (!frame || crops.has(footageKey(step))) continue
      let source = sourceOf(step, frame)
      if (!source) {
        const small = !stays && !large.has(footageKey(step))
        this.read.push(
          (source = {
            frame,
            feed: momentKey(step.feed),
            crop: cropOf(step),
            small,
            draw: await this.reader.read(frame, cropOf(step), small),
          }),
        )
      }
      const { draw } = source
      crops.set(footageKey(step), (ctx, dest) => draw(ctx, dest, cropOf(step)))
    }
    return crops
  }

  private loadFonts(...text: Parameters<typeof loadFonts>): Promise<boolean> {
    return this.missingFonts === 'fail'
      ? loadFonts(...text)
      : loadFonts(...text).catch((error: unknown) => quietly('fonts')(error) ?? false)
  }
}

/** Whether so little of the pixels of a step's crop is shown on a target that half of them, each way, are enough. */
function isSmallOn({ ctx, composition }: Target, step: FootageStep, { width, height }: Rect): boolean {
  if (step.kind === 'blur') return true
  const shown = step.orientation.turn % 2 === 0 ? step.dest : { width: step.dest.height, height: step.dest.width }
  return (
    (ctx.canvas.width / composition.size.width) * Math.max(shown.width / width, shown.height / height) <= HALVED_FROM
  )
}

const isNothingOr = <T>(value: T | null, test: (value: T) => boolean) => value === null || test(value)
