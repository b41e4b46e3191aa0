import { VideoSample } from 'mediabunny'
import { textsOf, type Composition } from '@/core/compose/composition'
import type { Size } from '@/core/geometry/rect'
import type { BackEnd } from '@/core/output/backEnd'
import { Composer, type Material } from '../draw/composer'
import { forgetSettings } from '../draw/drawText'
import { loadFonts } from '../fonts/loadFonts'
import { shippedHeap, type PlaneHeap } from '../planes/planeHeap'
import { PlanePainter } from '../planes/planePainter'
import { bytesOf, givePicture, layoutOf, takePicture, type Picture } from '../planes/planes'
import { OUTPUT_COLOURS, PictureCanvas, type FrameTime } from './pictureCanvas'

/** One file's pictures: where they are drawn, whoever draws them. */
export interface Surface {
  size: Size
  /** Made when something is first drawn on it: a file that is all painted on planes needs none. */
  canvas: () => PictureCanvas
  /** Null where the canvas draws everything. */
  picture: Picture | null
}

/** A picture that is wanted. */
export interface WantedPicture {
  surface: Surface
  composition: Composition
}

/** Draws the pictures of files that are made together, each by the back end that can. */
export class PictureMaker {
  private readonly composer = new Composer()
  private constructor(private readonly planes: { heap: PlaneHeap; painter: PlanePainter } | null) {}

  static async start(backEnd: BackEnd): Promise<PictureMaker> {
    const heap = backEnd === 'planes' ? await shippedHeap() : null
    return new PictureMaker(heap && { heap, painter: new PlanePainter(heap) })
  }

  /** Whether planes are used at all here. */
  get paintsOnPlanes(): boolean {
    return this.planes !== null
  }

  /** A surface for a file; given back with {@link giveBack}. */
  surface(size: Size): Surface {
    let canvas: PictureCanvas | null = null
    return { size, canvas: () => (canvas ??= new PictureCanvas(size)), picture: this.planes && takePicture(this.planes.heap, size) }
  }

  giveBack({ picture }: Surface): void {
    if (this.planes && picture) givePicture(this.planes.heap, picture)
  }

  /** Draws what is wanted from material that is borrowed until this is done. What comes back makes a frame for the encoder of each, in order. Not for concurrent use. */
  async draw(wanted: readonly WantedPicture[], material: Material): Promise<((time: FrameTime) => Promise<VideoSample>)[]> {
    const { planes } = this
    const onPlanes = new Set(planes ? wanted.filter((w) => w.surface.picture && planes.painter.canPaint(w.composition, material.frameOf)) : [])
    const onCanvas = wanted.filter((w) => !onPlanes.has(w))
    if (onCanvas.length > 0) await this.composer.draw(onCanvas.map(({ surface, composition }) => ({ ctx: surface.canvas().ctx, composition })), material)
    if (planes && onPlanes.size > 0) {
      const targets = [...onPlanes].flatMap(({ composition, surface: { picture } }) => (picture ? [{ composition, picture }] : []))
      for (const { text, style } of targets.flatMap((t) => textsOf(t.composition))) if (await loadFonts(text, style)) forgetSettings()
      await planes.painter.paint(targets, material)
    }
    return wanted.map((w) => (time) => (planes && w.surface.picture && onPlanes.has(w) ? Promise.resolve(toSample(planes.heap, w.surface.picture, time)) : w.surface.canvas().toSample(time)))
  }
}

function toSample(heap: PlaneHeap, picture: Picture, { timestamp, duration }: FrameTime): VideoSample {
  const { width, height } = picture
  const frame = new VideoFrame(heap.bytes(picture.y.at, bytesOf(picture)), {
    format: 'I420',
    codedWidth: width,
    codedHeight: height,
    layout: layoutOf(picture),
    timestamp: Math.round(timestamp * 1e6),
    duration: Math.round(duration * 1e6),
    colorSpace: OUTPUT_COLOURS,
  })
  return new VideoSample(frame, { timestamp, duration })
}
