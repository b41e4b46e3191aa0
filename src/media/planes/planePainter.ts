import { VideoSample } from 'mediabunny'
import { assertNever } from '@/core/assert'
import type { Composition, PictureStep, Step } from '@/core/compose/composition'
import { footageKey, footageOf } from '@/core/compose/composition'
import type { Rect, Size } from '@/core/geometry/rect'
import { bt709Of } from '@/core/picture/bt709'
import type { Material } from '../draw/composer'
import { blurSizes } from '../draw/drawBlurred'
import { onPixels } from '../draw/drawSteps'
import { outlineParts } from '../draw/outlineParts'
import { overlayOf, Overlays } from '../draw/overlays'
import { copyIn, isPlain } from './copyIn'
import { layOver, toPlanes, type Overlay } from './planeOverlay'
import { OUTPUT_COLOURS, type FrameTime } from '../render/pictureCanvas'
import type { PlaneHeap } from './planeHeap'
import { bytesOf, givePicture, halfOf, layoutOf, planesOf, takePicture, type Picture } from './planes'
import { Resampler, type Axis } from './resampler'
import { scalePicture } from './scalePicture'

/** A composition, and the picture of its own or another size that it is painted on. */
export interface PlaneTarget {
  composition: Composition
  picture: Picture
}

const FILLING: ReadonlySet<Step['kind']> = new Set(['colour', 'gradient', 'blur', 'image'])

/**
 * Paints compositions on planes instead of pixels: what a decoder gives is scaled straight into what an encoder
 * takes, and nothing is converted on the way. What is not footage is drawn by the canvas, as everywhere, and kept for
 * as long as it stays the same.
 */
export class PlanePainter {
  private readonly resampler: Resampler
  private readonly overlays: Overlays<Overlay>

  constructor(private readonly heap: PlaneHeap) {
    this.resampler = new Resampler(heap)
    this.overlays = new Overlays({
      keep: (drawn) => toPlanes(heap, drawn),
      letGo: ({ memory }) => memory.forEach((at) => heap.give(at)),
    })
  }

  /** A picture to paint on; given back with {@link give}. */
  take(size: Size): Picture {
    return takePicture(this.heap, size)
  }

  give(picture: Picture): void {
    givePicture(this.heap, picture)
  }

  /** Whether a composition can be painted so; what cannot is the canvas's. */
  canPaint(composition: Composition, _size: Size, frameOf: Material['frameOf']): boolean {
    return layersFill(composition.steps) && footageOf(composition).every((step) => isNothingOrPlain(frameOf(step.feed)))
  }

  /**
   * Paints targets that can be painted from material that is borrowed until this is done. Fonts have been loaded. Not
   * for concurrent use.
   */
  async paint(targets: readonly PlaneTarget[], material: Material): Promise<true> {
    const read = new Map<string, Picture>()
    try {
      for (const { composition, picture } of targets) {
        for (const step of footageOf(composition)) {
          const frame = material.frameOf(step.feed)
          const key = footageKey(step)
          if (frame && !read.has(key)) read.set(key, await copyIn(this.heap, frame, evenPart(step.crop, frame)))
        }
        for (const step of composition.steps) this.step(picture, step, composition.size, read, material)
      }
      return true
    } finally {
      for (const picture of read.values()) givePicture(this.heap, picture)
    }
  }

  /** What was painted as a frame for the encoder; whoever calls closes it. */
  toSample(picture: Picture, { timestamp, duration }: FrameTime): VideoSample {
    const { width, height } = picture
    const frame = new VideoFrame(this.heap.bytes(picture.y.at, bytesOf(picture)), {
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

  private step(out: Picture, step: Step, size: Size, read: ReadonlyMap<string, Picture>, material: Material): void {
    const { kernel } = this.heap
    const scale = { x: out.width / size.width, y: out.height / size.height }
    switch (step.kind) {
      case 'colour': {
        const { y, u, v } = bt709Of(step.colour)
        for (const [plane, value] of [
          [out.y, y],
          [out.u, u],
          [out.v, v],
        ] as const)
          kernel.fill(plane.at, plane.stride, value, plane.width, plane.height)
        break
      }
      case 'tint': {
        const { y, u, v } = bt709Of(step.colour)
        for (const [plane, value] of [
          [out.y, y],
          [out.u, u],
          [out.v, v],
        ] as const)
          kernel.tint(plane.at, plane.stride, value, toByte(step.opacity), plane.width, plane.height)
        break
      }
      case 'picture': {
        const source = read.get(footageKey(step))
        if (source) this.picture(out, step, source, onPixels(step.dest, scale), scale.x)
        break
      }
      case 'blur': {
        const source = read.get(footageKey(step))
        if (source) this.blur(out, step, source, size)
        break
      }
      case 'layer':
        this.layer(out, step, size, scale, read, material)
        break
      case 'gradient':
      case 'image':
      case 'block':
      case 'level':
      case 'text': {
        const overlay = overlayOf(this.overlays, out, step, size, material)
        if (overlay) layOver(this.heap, out, overlay)
        break
      }
      default:
        assertNever(step)
    }
  }

  private picture(
    out: Picture,
    { crop, orientation, outline, opacity }: PictureStep,
    source: Picture,
    dest: Rect,
    scale: number,
  ): void {
    const { heap } = this
    const scaling = { source, crop: within(crop), orientation, dest }
    if (!outline && opacity >= 1)
      return scalePicture(heap, this.resampler, { ...scaling, target: out, origin: { x: 0, y: 0 } })
    const place = evenWindow(dest, out)
    if (!place) return
    const { shadow, mask, border } = outlineParts(this.overlays, out, outline, { dest, scale, opacity })
    if (shadow) layOver(heap, out, shadow)
    if (!mask) return
    const picture = takePicture(heap, place)
    scalePicture(heap, this.resampler, { ...scaling, target: picture, origin: place })
    this.mixMasked(out, picture, place, mask)
    givePicture(heap, picture)
    if (border) layOver(heap, out, border)
  }

  /** Mixes a picture, whose first pixel lies at `place`, into another where a mask says. */
  private mixMasked(out: Picture, picture: Picture, place: { x: number; y: number }, mask: Overlay): void {
    const { kernel } = this.heap
    for (const [n, plane] of planesOf(picture).entries()) {
      const [target, alpha, by] =
        n === 0 ? ([out.y, mask.alpha, 1] as const) : ([n === 1 ? out.u : out.v, mask.halfAlpha, 2] as const)
      const x = mask.x / by
      const y = mask.y / by
      const from = plane.at + (y - place.y / by) * plane.stride + (x - place.x / by)
      kernel.mix(
        target.at + y * target.stride + x,
        target.stride,
        from,
        plane.stride,
        alpha.at,
        alpha.stride,
        255,
        alpha.width,
        alpha.height,
      )
    }
  }

  private blur(out: Picture, { crop, radius }: Extract<Step, { kind: 'blur' }>, source: Picture, size: Size): void {
    const { heap, resampler } = this
    const { small, beyond, deviation } = blurSizes(size, radius)
    const sharpSize = { width: small.width + 2 * beyond, height: small.height + 2 * beyond }
    const own = within(crop)
    const targets = planesOf(out)
    for (const [n, plane] of planesOf(source).entries()) {
      const target = targets[n]
      if (!target) continue
      const by = n === 0 ? 1 : 2
      // Each plane is blurred at the small size: that is as fine as anything is in it.
      const sharp = this.plane(sharpSize)
      const soft = this.plane({ width: small.width, height: sharpSize.height })
      const whole = (from: number, length: number, outputs: number): Axis => scaledAxis(from / by, length / by, outputs)
      resampler.run(plane, sharp, whole(own.x, own.width, sharpSize.width), whole(own.y, own.height, sharpSize.height))
      const bell = (outputs: number, samples: number, from: number): Axis => ({
        kind: deviation > 0.05 ? 'gauss' : 'bilinear',
        outputs,
        from,
        step: 1,
        first: 0,
        samples,
        deviation,
      })
      const blurred = this.plane(small)
      resampler.run(sharp, soft, bell(small.width, sharpSize.width, beyond), {
        kind: 'bilinear',
        outputs: sharpSize.height,
        from: 0,
        step: 1,
        first: 0,
        samples: sharpSize.height,
      })
      resampler.run(
        soft,
        blurred,
        { kind: 'bilinear', outputs: small.width, from: 0, step: 1, first: 0, samples: small.width },
        bell(small.height, sharpSize.height, beyond),
      )
      resampler.run(
        blurred,
        target,
        scaledAxis(0, small.width, target.width),
        scaledAxis(0, small.height, target.height),
      )
      for (const { at } of [sharp, soft, blurred]) heap.give(at)
    }
  }

  private plane({ width, height }: Size) {
    const stride = 16 * Math.ceil(width / 16)
    return { at: this.heap.take(stride * height), stride, width, height }
  }

  private layer(
    out: Picture,
    step: Extract<Step, { kind: 'layer' }>,
    size: Size,
    scale: { x: number; y: number },
    read: ReadonlyMap<string, Picture>,
    material: Material,
  ): void {
    const { kernel } = this.heap
    const layer = takePicture(this.heap, out)
    for (const inner of step.steps) this.step(layer, inner, size, read, material)
    const offset = { x: Math.round(step.offset.x * scale.x), y: Math.round(step.offset.y * scale.y) }
    const window = onPixels(step.window, scale)
    const opacity = toByte(step.opacity)
    const targets = planesOf(out)
    for (const [n, plane] of planesOf(layer).entries()) {
      const target = targets[n]
      if (!target) continue
      const by = n === 0 ? 1 : 2
      const dx = Math.floor(offset.x / by)
      const dy = Math.floor(offset.y / by)
      const left = Math.max(0, dx, Math.floor(window.x / by))
      const top = Math.max(0, dy, Math.floor(window.y / by))
      const width = Math.min(target.width, target.width + dx, Math.ceil((window.x + window.width) / by)) - left
      const height = Math.min(target.height, target.height + dy, Math.ceil((window.y + window.height) / by)) - top
      if (width <= 0 || height <= 0) continue
      const to = target.at + top * target.stride + left
      const from = plane.at + (top - dy) * plane.stride + (left - dx)
      if (opacity === 255) kernel.copy(to, target.stride, from, plane.stride, width, height)
      else kernel.mix(to, target.stride, from, plane.stride, 0, 0, opacity, width, height)
    }
    givePicture(this.heap, layer)
  }
}

/** `outputs` samples that together show `length` samples from `from` on. */
function scaledAxis(from: number, length: number, outputs: number): Axis {
  const step = length / outputs
  const first = Math.floor(from)
  return {
    kind: step > 1.85 ? 'area' : 'bilinear',
    outputs,
    from: from + 0.5 * step - 0.5,
    step,
    first,
    samples: Math.ceil(from + length - 1e-6) - first,
  }
}

const toByte = (share: number) => Math.round(Math.max(0, Math.min(1, share)) * 255)

const isNothingOrPlain = (frame: VideoSample | null) => frame === null || isPlain(frame)

/** Layers that can be seen through would need an alpha of their own. */
const layersFill = (steps: readonly Step[]): boolean =>
  steps.every(
    (s) => s.kind !== 'layer' || (s.steps[0] !== undefined && FILLING.has(s.steps[0].kind) && layersFill(s.steps)),
  )

/** The even rectangle that holds a crop, inside the frame. */
function evenPart({ x, y, width, height }: Rect, { visibleRect }: VideoSample): Rect {
  const left = Math.max(0, 2 * Math.floor(x / 2))
  const top = Math.max(0, 2 * Math.floor(y / 2))
  const right = Math.min(visibleRect.width, 2 * Math.ceil((x + width - 1e-6) / 2))
  const bottom = Math.min(visibleRect.height, 2 * Math.ceil((y + height - 1e-6) / 2))
  return { x: left, y: top, width: right - left, height: bottom - top }
}

/** A crop in the pixels of the even part that was read for it. */
function within({ x, y, width, height }: Rect): Rect {
  return { x: x - Math.max(0, 2 * Math.floor(x / 2)), y: y - Math.max(0, 2 * Math.floor(y / 2)), width, height }
}

/** As much of a rectangle as lies on a picture, on even pixels; null when that is nothing. */
function evenWindow({ x, y, width, height }: Rect, out: Size): Rect | null {
  const left = Math.max(0, 2 * Math.floor(x / 2))
  const top = Math.max(0, 2 * Math.floor(y / 2))
  const right = Math.min(out.width, 2 * halfOf(x + width))
  const bottom = Math.min(out.height, 2 * halfOf(y + height))
  return right > left && bottom > top ? { x: left, y: top, width: right - left, height: bottom - top } : null
}
