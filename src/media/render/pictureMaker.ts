import type { VideoSample } from 'mediabunny'
import { textsOf, type Composition } from '@/core/compose/composition'
import type { Size } from '@/core/geometry/rect'
import type { BackEnd } from '@/core/output/backEnd'
import { Composer, type Material } from '../draw/composer'
import { forgetSettings } from '../draw/drawText'
import { loadFonts } from '../fonts/loadFonts'
import { GpuPainter } from '../gpu/gpuPainter'
import { PlanePainter } from '../planes/planePainter'
import { shippedHeap } from '../planes/planeHeap'
import { PictureCanvas, type FrameTime } from './pictureCanvas'

/** What paints pictures of a kind of its own beside the canvas, and leaves to that what it cannot. */
interface Painter<P> {
  take(size: Size): P
  give(picture: P): void
  canPaint(composition: Composition, size: Size, frameOf: Material['frameOf']): boolean
  /** False when nothing was painted after all. */
  paint(targets: readonly { composition: Composition; picture: P }[], material: Material): Promise<boolean> | boolean
  toSample(picture: P, time: FrameTime): VideoSample
}

/** One file's pictures: where they are drawn, whoever draws them. */
export interface Surface {
  size: Size
  /** Made when something is first drawn on it: a file that is all painted by another back end needs none. */
  canvas: () => PictureCanvas
  /** The painter's; null where the canvas draws everything. */
  picture: unknown
}

/** A picture that is wanted. */
export interface WantedPicture {
  surface: Surface
  composition: Composition
}

/** Draws the pictures of files that are made together, each by the back end that can. */
export class PictureMaker {
  private readonly composer = new Composer()
  private constructor(private readonly painter: Painter<unknown> | null) {}

  static async start(backEnd: BackEnd): Promise<PictureMaker> {
    return new PictureMaker(await painterOf(backEnd))
  }

  /** Whether anything but the canvas is used here. */
  get paints(): boolean {
    return this.painter !== null
  }

  /** A surface for a file; given back with {@link giveBack}. */
  surface(size: Size): Surface {
    let canvas: PictureCanvas | null = null
    return { size, canvas: () => (canvas ??= new PictureCanvas(size)), picture: this.painter?.take(size) ?? null }
  }

  giveBack({ picture }: Surface): void {
    if (picture !== null) this.painter?.give(picture)
  }

  /**
   * Draws what is wanted from material that is borrowed until this is done. What comes back makes a frame for the
   * encoder of each, in order. Not for concurrent use.
   */
  async draw(
    wanted: readonly WantedPicture[],
    material: Material,
  ): Promise<((time: FrameTime) => Promise<VideoSample>)[]> {
    const { painter } = this
    const painted = painter ? await this.paint(painter, wanted, material) : new Set<WantedPicture>()
    const onCanvas = wanted.filter((w) => !painted.has(w))
    if (onCanvas.length > 0)
      await this.composer.draw(
        onCanvas.map(({ surface, composition }) => ({ ctx: surface.canvas().ctx, composition })),
        material,
      )
    return wanted.map(
      (w) => (time) =>
        painter && painted.has(w)
          ? Promise.resolve(painter.toSample(w.surface.picture, time))
          : w.surface.canvas().toSample(time),
    )
  }

  /** Those that were painted. */
  private async paint(
    painter: Painter<unknown>,
    wanted: readonly WantedPicture[],
    material: Material,
  ): Promise<Set<WantedPicture>> {
    const able = wanted.filter(({ composition, surface }) =>
      painter.canPaint(composition, surface.size, material.frameOf),
    )
    for (const { text, style } of able.flatMap((w) => textsOf(w.composition)))
      if (await loadFonts(text, style)) forgetSettings()
    const done =
      able.length > 0 &&
      (await painter.paint(
        able.map(({ composition, surface }) => ({ composition, picture: surface.picture })),
        material,
      ))
    return new Set(done ? able : [])
  }
}

async function painterOf(backEnd: BackEnd): Promise<Painter<unknown> | null> {
  if (backEnd === 'gpu') return GpuPainter.start()
  const heap = backEnd === 'planes' ? await shippedHeap() : null
  return heap && new PlanePainter(heap)
}
