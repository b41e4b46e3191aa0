import { execFile, spawn, type ChildProcess } from 'node:child_process'
import { createReadStream, createWriteStream } from 'node:fs'
import { stat, statfs } from 'node:fs/promises'
import { join } from 'node:path'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { ReadableStream as NodeStream } from 'node:stream/web'
import { promisify } from 'node:util'
import {
  makeTemporaryFolder,
  removeTemporaryFolder,
  sweepTemporaryFolders,
} from '../../../unattended/temporaryFolders.mjs'
import { copyArguments, isHdr, PROBE_ARGUMENTS, readProbed, readProgress, type ForeignVideo } from './ffmpegCall'

const run = promisify(execFile)

const FOLDER = 'brimble-working-copy'
/** Probing a file takes no longer than this, whatever is in it. */
const PROBE_MS = 30_000
/** A finished copy waits so long for its page to fetch it, which a page does at once unless it was closed. */
const WAITS_MS = 20_000
/** Of what a copy can take on the disk, in sizes of the recording: itself, and a copy that may be larger. */
const ROOM_FACTOR = 4
const MAX_MESSAGE = 400

/**
 * What ffmpeg may read: kinds of recordings, from files. Left to itself it would also follow lists of other files and
 * addresses.
 */
const ONLY_RECORDINGS = [
  ...['-protocol_whitelist', 'file'],
  ...['-format_whitelist', 'mov,mp4,matroska,webm,avi,asf,flv,mpegts,mpeg,mpegvideo,mxf,ogg,dv,h264,hevc,gxf,rm'],
]

/** What stands in the way of a copy. */
export type CopyRefusal = 'busy' | 'no-room' | 'no-picture'

/** How a copy goes on: seconds of the recording that are done, of how many where that is known. */
export interface CopyProgress {
  seconds: number
  ofSeconds: number | null
}

interface Held {
  hasFfmpeg?: Promise<boolean>
  copy?: WorkingCopy | null
}
/** There is one copy at a time. Kept on the process: route handlers are built apart from each other. */
const held = ((globalThis as { brimbleWorkingCopy?: Held }).brimbleWorkingCopy ??= {})

/** Whether this machine has an ffmpeg that can make copies; looked for once. */
export function hasFfmpeg(): Promise<boolean> {
  return (held.hasFfmpeg ??= Promise.all([
    run('ffmpeg', ['-hide_banner', '-encoders']),
    run('ffmpeg', ['-hide_banner', '-filters']),
    run('ffprobe', ['-version']),
  ]).then(
    ([encoders, filters]) =>
      ['libx264', ' aac '].every((name) => encoders.stdout.includes(name)) &&
      ['zscale', 'tonemap', 'bwdif'].every((name) => filters.stdout.includes(name)),
    () => false,
  ))
}

export const sweepWorkingCopies = (): void => sweepTemporaryFolders(FOLDER)

export const currentCopy = (): WorkingCopy | null => held.copy ?? null

/** A recording that is made into one that any browser can read. Whoever begins it calls `remove`. */
export class WorkingCopy {
  readonly id = crypto.randomUUID()
  private readonly folder = makeTemporaryFolder(FOLDER)
  private readonly input = join(this.folder, 'recording')
  private readonly output = join(this.folder, 'copy.mp4')
  private process: ChildProcess | null = null
  private waiting: NodeJS.Timeout | undefined
  private isRemoved = false
  private video: ForeignVideo | null = null

  /**
   * Takes a recording in. What stands in the way is given instead; nothing is left then. Throws when it breaks off, be
   * it that whoever sends has gone (`signal`) without the body having ended.
   */
  static async take(
    body: ReadableStream<Uint8Array>,
    bytes: number,
    signal: AbortSignal,
  ): Promise<WorkingCopy | CopyRefusal> {
    if (held.copy) return 'busy'
    const copy = (held.copy = new WorkingCopy())
    try {
      const { bavail, bsize } = await statfs(copy.folder)
      const refusal = bavail * bsize < ROOM_FACTOR * bytes ? 'no-room' : await copy.read(body, bytes, signal)
      signal.throwIfAborted()
      if (refusal) copy.remove()
      return refusal ?? copy
    } catch (error) {
      copy.remove()
      throw error
    }
  }

  /** Whether the recording is of high dynamic range, which the copy is not. */
  get isFromHdr(): boolean {
    return this.video !== null && isHdr(this.video)
  }

  private async read(
    body: ReadableStream<Uint8Array>,
    bytes: number,
    signal: AbortSignal,
  ): Promise<CopyRefusal | null> {
    let read = 0
    const counted = async function* (chunks: AsyncIterable<Uint8Array>) {
      for await (const chunk of chunks) {
        read += chunk.byteLength
        if (read > bytes) throw new RangeError('more came than was announced')
        yield chunk
      }
    }
    await pipeline(Readable.fromWeb(body as NodeStream<Uint8Array>), counted, createWriteStream(this.input), { signal })
    const args = [...ONLY_RECORDINGS, ...PROBE_ARGUMENTS, this.input]
    const probed = await run('ffprobe', args, { timeout: PROBE_MS, signal }).catch(() => null)
    this.video = probed && readProbed(probed.stdout)
    return this.video ? null : 'no-picture'
  }

  /** Makes the copy. Resolves with what went wrong, null for nothing. */
  make(onProgress: (progress: CopyProgress) => void): Promise<string | null> {
    const { video } = this
    if (!video) return Promise.resolve('nothing was taken in')
    return new Promise((resolve) => {
      const ffmpeg = spawn('ffmpeg', [...ONLY_RECORDINGS, ...copyArguments(this.input, this.output, video)])
      this.process = ffmpeg
      let problem = ''
      ffmpeg.stderr.on('data', (text: Buffer) => (problem = (problem + text.toString()).slice(-MAX_MESSAGE)))
      ffmpeg.stdout.on('data', (text: Buffer) => {
        const seconds = readProgress(text.toString())
        if (seconds !== null) onProgress({ seconds, ofSeconds: video.durationSeconds })
      })
      ffmpeg.on('error', (error) => resolve(error.message))
      ffmpeg.on('close', (code) => {
        this.process = null
        if (this.isRemoved) this.remove()
        else this.waitForPage()
        resolve(code === 0 ? null : withoutFolder(problem, this.folder) || `ffmpeg ended with ${code}`)
      })
    })
  }

  private waitForPage(): void {
    this.waiting = setTimeout(() => this.remove(), WAITS_MS)
    this.waiting.unref()
  }

  /** The finished copy; it is removed when it was read, or when whoever reads it goes away. */
  async open(): Promise<{ body: ReadableStream<Uint8Array>; bytes: number }> {
    clearTimeout(this.waiting)
    const { size } = await stat(this.output)
    const file = createReadStream(this.output)
    file.on('close', () => this.remove())
    return { body: Readable.toWeb(file) as ReadableStream<Uint8Array>, bytes: size }
  }

  /** Ends what is going on and leaves nothing behind; the next copy can begin at once. */
  remove(): void {
    clearTimeout(this.waiting)
    if (held.copy === this) held.copy = null
    if (!this.process) return removeTemporaryFolder(this.folder)
    // What is still writing could put a file into a folder that is being emptied.
    this.isRemoved = true
    this.process.kill('SIGKILL')
  }
}

const withoutFolder = (text: string, folder: string) => text.replaceAll(`${folder}/`, '').trim()
