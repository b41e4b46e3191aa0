import { VideoSample } from 'mediabunny'
import * as twgl from 'twgl.js'
import { assertNever } from '@/core/assert'
import {
  footageOf,
  momentKey,
  type Composition,
  type FootageStep,
  type Orientation,
  type PictureStep,
  type Step,
} from '@/core/compose/composition'
import { seenOf, type CropAxes } from '@/core/compose/seen'
import type { Point, Rect, Size } from '@/core/geometry/rect'
import type { Material } from '../draw/composer'
import { HALVED_FROM } from '../draw/cropReader'
import { blurSizes } from '../draw/drawBlurred'
import { onPixels } from '../draw/drawSteps'
import { outlineParts } from '../draw/outlineParts'
import { overlayOf, Overlays, type Drawn } from '../draw/overlays'
import { OUTPUT_COLOURS, type FrameTime } from '../render/pictureCanvas'
import { BELL, DRAWN, FLAT, FOOTAGE, RECTANGLE, TO_PLANES } from './shaders'

/** A picture on the GPU, what it becomes there for an encoder, and where that is read to. */
export interface GpuPicture extends Size {
  pixels: twgl.FramebufferInfo
  planes: twgl.FramebufferInfo
  bytes: Uint8Array<ArrayBuffer>
}

/** What was drawn by the canvas, as a texture over the rectangle that it covers. */
interface Overlay {
  texture: WebGLTexture
  box: Rect
}

/** A surface to draw on, and its size. */
type Ground = Pick<twgl.FramebufferInfo, 'framebuffer' | 'width' | 'height'>

/** A texture, and the part of it that a rectangle shows. */
interface Looking extends CropAxes {
  texture: WebGLTexture
}

const UPRIGHT: Orientation = { turn: 0, flip: false }

/** Looked at so often each way at most, for one pixel. */
const MAX_CELLS = 16

/**
 * Paints compositions on the GPU: frames become textures, are scaled and laid over each other there, and come back as
 * the planes that encoders take. What is not footage is drawn by the canvas, as everywhere, and kept for as long as
 * it stays the same.
 */
export class GpuPainter {
  private readonly overlays: Overlays<Overlay>
  private readonly programs: Record<'footage' | 'drawn' | 'flat' | 'bell' | 'toPlanes', twgl.ProgramInfo>
  /** Textures that frames are put into, used again for every picture. */
  private readonly frames: WebGLTexture[] = []
  /** Surfaces by what they are for, used again. */
  private readonly grounds = new Map<string, twgl.FramebufferInfo>()
  private readonly largest: number

  private constructor(private readonly gl: WebGL2RenderingContext) {
    const program = (fragment: string) => twgl.createProgramInfo(gl, [RECTANGLE, fragment])
    this.programs = {
      footage: program(FOOTAGE),
      drawn: program(DRAWN),
      flat: program(FLAT),
      bell: program(BELL),
      toPlanes: program(TO_PLANES),
    }
    this.overlays = new Overlays({
      keep: (drawn) => this.keep(drawn),
      letGo: ({ texture }) => gl.deleteTexture(texture),
    })
    this.largest = gl.getParameter(gl.MAX_TEXTURE_SIZE) as number
    gl.blendFunc(gl.ONE, gl.ONE_MINUS_SRC_ALPHA)
  }

  /** Null where the browser has no WebGL2. */
  static start(): GpuPainter | null {
    const gl = new OffscreenCanvas(1, 1).getContext('webgl2', { alpha: false, depth: false, antialias: false })
    return gl && new GpuPainter(gl)
  }

  /** A picture to paint on; given back with {@link give}. */
  take(size: Size): GpuPicture {
    const { width, height } = size
    const stride = strideOf(width)
    const rows = height + 2 * halfRowsOf(height)
    return {
      width,
      height,
      pixels: this.ground(size),
      planes: this.ground({ width: stride / 4, height: rows }),
      bytes: new Uint8Array(stride * rows),
    }
  }

  give({ pixels, planes }: GpuPicture): void {
    for (const { framebuffer, attachments } of [pixels, planes]) {
      this.gl.deleteFramebuffer(framebuffer)
      for (const texture of attachments) this.gl.deleteTexture(texture)
    }
  }

  /** Whether a composition can be painted so; what cannot is the canvas's. */
  canPaint(composition: Composition, size: Size, frameOf: Material['frameOf']): boolean {
    if (this.gl.isContextLost() || Math.max(size.width, size.height * 1.5) > this.largest) return false
    return footageOf(composition).every((step) => isNothingOrUpright(frameOf(step.feed), this.largest))
  }

  /**
   * Paints pictures that can be painted from material that is borrowed until this is done; false when the GPU was
   * lost meanwhile, and nothing was. Fonts have been loaded. Not for concurrent use.
   */
  paint(targets: readonly { composition: Composition; picture: GpuPicture }[], material: Material): boolean {
    const read = this.read(
      targets.map((t) => t.composition),
      material,
    )
    for (const { composition, picture } of targets) {
      this.steps(picture.pixels, composition.steps, composition.size, read, material, 0)
      this.toBytes(picture)
    }
    return !this.gl.isContextLost()
  }

  /** What was painted as a frame for the encoder; whoever calls closes it. */
  toSample({ width, height, bytes }: GpuPicture, { timestamp, duration }: FrameTime): VideoSample {
    const stride = strideOf(width)
    const [blue, red] = [stride * height, stride * (height + halfRowsOf(height))]
    const layout = [
      { offset: 0, stride },
      { offset: blue, stride: stride / 2 },
      { offset: red, stride: stride / 2 },
    ]
    const times = { timestamp: Math.round(timestamp * 1e6), duration: Math.round(duration * 1e6) }
    return new VideoSample(
      new VideoFrame(bytes, {
        format: 'I420',
        codedWidth: width,
        codedHeight: height,
        layout,
        ...times,
        colorSpace: OUTPUT_COLOURS,
      }),
      { timestamp, duration },
    )
  }

  /** Puts every frame that is shown into a texture, converted by the browser as for every canvas. */
  private read(compositions: readonly Composition[], { frameOf }: Material): Map<string, WebGLTexture> {
    const { gl } = this
    const read = new Map<string, WebGLTexture>()
    for (const { feed } of compositions.flatMap(footageOf)) {
      const sample = frameOf(feed)
      if (!sample || read.has(momentKey(feed))) continue
      const texture = (this.frames[read.size] ??= twgl.createTexture(gl, {
        min: gl.LINEAR,
        mag: gl.LINEAR,
        wrap: gl.CLAMP_TO_EDGE,
        width: 1,
        height: 1,
      }))
      const frame = sample.toVideoFrame()
      gl.bindTexture(gl.TEXTURE_2D, texture)
      gl.texImage2D(gl.TEXTURE_2D, 0, gl.RGBA, gl.RGBA, gl.UNSIGNED_BYTE, frame)
      frame.close()
      read.set(momentKey(feed), texture)
    }
    return read
  }

  private steps(
    out: Ground,
    steps: readonly Step[],
    size: Size,
    read: ReadonlyMap<string, WebGLTexture>,
    material: Material,
    depth: number,
  ): void {
    const scale = { x: out.width / size.width, y: out.height / size.height }
    for (const step of steps) this.step(out, step, size, scale, read, material, depth)
  }

  private step(
    out: Ground,
    step: Step,
    size: Size,
    scale: Point,
    read: ReadonlyMap<string, WebGLTexture>,
    material: Material,
    depth: number,
  ): void {
    switch (step.kind) {
      case 'colour':
        this.flat(out, step.colour, 1)
        break
      case 'tint':
        this.flat(out, step.colour, step.opacity)
        break
      case 'picture': {
        const texture = read.get(momentKey(step.feed))
        if (texture) this.picture(out, step, texture, onPixels(step.dest, scale), scale.x)
        break
      }
      case 'blur': {
        const texture = read.get(momentKey(step.feed))
        if (texture) this.blur(out, step, texture, size)
        break
      }
      case 'layer': {
        const layer = this.kept(`layer ${depth}`, out)
        this.clear(layer)
        this.steps(layer, step.steps, size, read, material, depth + 1)
        const dest = {
          x: Math.round(step.offset.x * scale.x),
          y: Math.round(step.offset.y * scale.y),
          width: out.width,
          height: out.height,
        }
        this.drawn(out, layer, dest, step.opacity, onPixels(step.window, scale))
        break
      }
      case 'gradient':
      case 'image':
      case 'block':
      case 'level':
      case 'text':
        this.layOver(out, overlayOf(this.overlays, out, step, size, material))
        break
      default:
        assertNever(step)
    }
  }

  private picture(
    out: Ground,
    { crop, orientation, outline, opacity }: PictureStep,
    texture: WebGLTexture,
    dest: Rect,
    scale: number,
  ): void {
    if (!outline) return this.footage(out, texture, crop, dest, orientation, opacity, null)
    const { shadow, mask, border } = outlineParts(this.overlays, out, outline, { dest, scale, opacity })
    this.layOver(out, shadow)
    if (!mask) return
    this.footage(out, texture, crop, dest, orientation, 1, mask)
    this.layOver(out, border)
  }

  private blur(
    out: Ground,
    { crop, radius }: Extract<FootageStep, { kind: 'blur' }>,
    texture: WebGLTexture,
    size: Size,
  ): void {
    const { small, beyond, deviation } = blurSizes(size, radius)
    const sharp = this.kept('sharp', { width: small.width + 2 * beyond, height: small.height + 2 * beyond })
    this.footage(sharp, texture, crop, { x: 0, y: 0, width: sharp.width, height: sharp.height }, UPRIGHT, 1, null)
    const soft = this.kept('soft', sharp)
    const softer = this.kept('softer', sharp)
    if (deviation > 0.05) {
      this.bell(soft, sharp, { x: 1, y: 0 }, deviation)
      this.bell(softer, soft, { x: 0, y: 1 }, deviation)
    }
    const seen = {
      texture: textureOf(deviation > 0.05 ? softer : sharp),
      from: { x: beyond, y: beyond },
      across: { x: small.width, y: 0 },
      down: { x: 0, y: small.height },
    }
    this.rectangle(out, this.programs.drawn, { x: 0, y: 0, width: out.width, height: out.height }, seen, { opacity: 1 })
  }

  /** Draws a crop of a frame, flipped and turned, into a rectangle. */
  private footage(
    out: Ground,
    texture: WebGLTexture,
    crop: Rect,
    dest: Rect,
    orientation: Orientation,
    opacity: number,
    mask: Overlay | null,
  ): void {
    const looking = { texture, ...seenOf(crop, orientation) }
    const cells = (length: number, outputs: number) =>
      length / outputs >= 1 / HALVED_FROM ? Math.min(MAX_CELLS, Math.ceil(length / outputs)) : 1
    const lying = orientation.turn % 2 === 1
    this.rectangle(
      out,
      this.programs.footage,
      dest,
      looking,
      {
        cells: lying
          ? [cells(crop.height, dest.width), cells(crop.width, dest.height)]
          : [cells(crop.width, dest.width), cells(crop.height, dest.height)],
        // No pixel beyond the crop is seen.
        inside: [
          Math.floor(crop.x) + 0.5,
          Math.floor(crop.y) + 0.5,
          Math.ceil(crop.x + crop.width - 1e-6) - 0.5,
          Math.ceil(crop.y + crop.height - 1e-6) - 0.5,
        ],
        opacity,
        masked: mask !== null,
        mask: mask?.texture ?? texture,
        maskPlace: mask ? [mask.box.x, mask.box.y, mask.box.width, mask.box.height] : [0, 0, 1, 1],
      },
      mask?.box,
    )
  }

  private flat(out: Ground, colour: string, opacity: number): void {
    const value = Number.parseInt(colour.slice(1, 7), 16)
    const premultiplied = [...[value >> 16, (value >> 8) & 255, value & 255].map((c) => (c / 255) * opacity), opacity]
    this.rectangle(out, this.programs.flat, { x: 0, y: 0, width: out.width, height: out.height }, null, {
      premultiplied,
    })
  }

  private bell(out: twgl.FramebufferInfo, source: twgl.FramebufferInfo, along: Point, deviation: number): void {
    const { width, height } = out
    const looking = {
      texture: textureOf(source),
      from: { x: 0, y: 0 },
      across: { x: width, y: 0 },
      down: { x: 0, y: height },
    }
    this.rectangle(out, this.programs.bell, { x: 0, y: 0, width, height }, looking, {
      along: [along.x, along.y],
      deviation,
    })
  }

  private drawn(out: Ground, source: twgl.FramebufferInfo, dest: Rect, opacity: number, window?: Rect): void {
    const looking = {
      texture: textureOf(source),
      from: { x: 0, y: 0 },
      across: { x: source.width, y: 0 },
      down: { x: 0, y: source.height },
    }
    this.rectangle(out, this.programs.drawn, dest, looking, { opacity }, window)
  }

  private layOver(out: Ground, overlay: Overlay | null): void {
    if (!overlay) return
    const { texture, box } = overlay
    this.rectangle(
      out,
      this.programs.drawn,
      box,
      { texture, from: { x: 0, y: 0 }, across: { x: box.width, y: 0 }, down: { x: 0, y: box.height } },
      { opacity: 1 },
    )
  }

  /** Runs a program over a rectangle of a ground, as far as it lies in `window`. */
  private rectangle(
    out: Ground,
    program: twgl.ProgramInfo,
    dest: Rect,
    looking: Looking | null,
    uniforms: Record<string, unknown>,
    window?: Rect,
  ): void {
    const { gl } = this
    gl.bindFramebuffer(gl.FRAMEBUFFER, out.framebuffer)
    gl.viewport(0, 0, out.width, out.height)
    gl.useProgram(program.program)
    twgl.setUniforms(program, {
      target: [out.width, out.height],
      dest: [dest.x, dest.y, dest.width, dest.height],
      ...uniforms,
    })
    if (looking)
      twgl.setUniforms(program, {
        source: looking.texture,
        from: pair(looking.from),
        across: pair(looking.across),
        down: pair(looking.down),
      })
    gl.enable(gl.BLEND)
    if (window) {
      gl.enable(gl.SCISSOR_TEST)
      gl.scissor(window.x, window.y, Math.max(0, window.width), Math.max(0, window.height))
    }
    gl.drawArrays(gl.TRIANGLE_STRIP, 0, 4)
    gl.disable(gl.SCISSOR_TEST)
  }

  private clear(ground: Ground): void {
    const { gl } = this
    gl.bindFramebuffer(gl.FRAMEBUFFER, ground.framebuffer)
    gl.clearColor(0, 0, 0, 0)
    gl.clear(gl.COLOR_BUFFER_BIT)
  }

  private toBytes({ width, height, pixels, planes, bytes }: GpuPicture): void {
    const { gl, programs } = this
    gl.bindFramebuffer(gl.FRAMEBUFFER, planes.framebuffer)
    gl.viewport(0, 0, planes.width, planes.height)
    gl.useProgram(programs.toPlanes.program)
    twgl.setUniforms(programs.toPlanes, {
      target: [planes.width, planes.height],
      dest: [0, 0, planes.width, planes.height],
      source: textureOf(pixels),
      size: [width, height],
      half4: planes.width / 2,
      rows: halfRowsOf(height),
    })
    gl.disable(gl.BLEND)
    gl.drawArrays(gl.TRIANGLE_STRIP, 0, 4)
    gl.readPixels(0, 0, planes.width, planes.height, gl.RGBA, gl.UNSIGNED_BYTE, bytes)
  }

  private keep({ pixels, stride, box }: Drawn): Overlay {
    const { gl } = this
    const texture = twgl.createTexture(gl, {
      min: gl.LINEAR,
      mag: gl.LINEAR,
      wrap: gl.CLAMP_TO_EDGE,
      width: 1,
      height: 1,
    })
    gl.bindTexture(gl.TEXTURE_2D, texture)
    gl.pixelStorei(gl.UNPACK_PREMULTIPLY_ALPHA_WEBGL, true)
    gl.pixelStorei(gl.UNPACK_ROW_LENGTH, stride)
    gl.texImage2D(
      gl.TEXTURE_2D,
      0,
      gl.RGBA,
      box.width,
      box.height,
      0,
      gl.RGBA,
      gl.UNSIGNED_BYTE,
      new Uint8Array(pixels.buffer),
      4 * (box.y * stride + box.x),
    )
    gl.pixelStorei(gl.UNPACK_PREMULTIPLY_ALPHA_WEBGL, false)
    gl.pixelStorei(gl.UNPACK_ROW_LENGTH, 0)
    return { texture, box }
  }

  private kept(name: string, { width, height }: Size): twgl.FramebufferInfo {
    const key = `${name} ${width} ${height}`
    let ground = this.grounds.get(key)
    if (!ground) this.grounds.set(key, (ground = this.ground({ width, height })))
    return ground
  }

  private ground({ width, height }: Size): twgl.FramebufferInfo {
    const { gl } = this
    return twgl.createFramebufferInfo(
      gl,
      [{ internalFormat: gl.RGBA8, min: gl.LINEAR, mag: gl.LINEAR, wrap: gl.CLAMP_TO_EDGE }],
      width,
      height,
    )
  }
}

/**
 * Bytes from row to row of what is read back: whole pixels of four samples, as many for each of two rows of a colour
 * difference.
 */
const strideOf = (width: number) => 8 * Math.ceil(width / 8)

/** Rows that hold two rows of a colour difference each. */
const halfRowsOf = (height: number) => Math.ceil(height / 4)

const textureOf = ({ attachments }: twgl.FramebufferInfo): WebGLTexture => attachments[0] as WebGLTexture

const pair = ({ x, y }: Point) => [x, y]

/** Turned frames, and those whose pixels are not square, are the canvas's. */
const isNothingOrUpright = (frame: VideoSample | null, largest: number) =>
  frame === null ||
  (frame.rotation === 0 &&
    !frame.flip &&
    frame.squarePixelWidth === frame.visibleRect.width &&
    Math.max(frame.squarePixelWidth, frame.visibleRect.height) <= largest)
