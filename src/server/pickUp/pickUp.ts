import { randomBytes, randomInt, timingSafeEqual } from 'node:crypto'
import { createWriteStream } from 'node:fs'
import { rm, stat } from 'node:fs/promises'
import { join } from 'node:path'
import { Readable, Transform } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { ReadableStream } from 'node:stream/web'
import {
  makeTemporaryFolder,
  removeTemporaryFolder,
  sweepTemporaryFolders,
} from '../../../unattended/temporaryFolders.mjs'

/** No letter that can be taken for another: 31 of them, eight to a code, are 8.5 · 10¹¹ codes. */
const LETTERS = 'ABCDEFGHJKMNPQRSTUVWXYZ23456789'
const CODE_LENGTH = 8

export const MAX_FILES = 60

const FOLDER = 'brimble-pick-up'

/** Removes what pick-ups have left behind whose server was killed: nobody else would. */
export const sweepPickUps = () => sweepTemporaryFolders(FOLDER)
export const LASTS_MS = 30 * 60_000

export interface PickUpLimits {
  mostBytes: number
  lastsMs: number
}

export const USUAL_LIMITS: PickUpLimits = { mostBytes: 4e9, lastsMs: LASTS_MS }

export interface PickUpFile {
  name: string
  type: string
  sizeBytes: number
  path: string
}

export type AddFileResult = { ok: true } | { ok: false; reason: 'too-large' | 'too-many' | 'bad-type' | 'closed' }

/** What may be picked up: what Brimble makes. */
const TYPES: Record<string, string> = {
  mp4: 'video/mp4',
  webm: 'video/webm',
  png: 'image/png',
  gif: 'image/gif',
  vtt: 'text/vtt',
  srt: 'application/x-subrip',
  zip: 'application/zip',
}

/** Files that lie ready for whoever has the code, on disk, for a set time. `close` ends it and removes them. */
export class PickUp {
  readonly code = Array.from({ length: CODE_LENGTH }, () => LETTERS[randomInt(LETTERS.length)]).join('')
  readonly expiresAt: number
  readonly files: PickUpFile[] = []
  private readonly timer: NodeJS.Timeout
  private bytes = 0
  private closed = false

  private constructor(
    private readonly folder: string,
    private readonly limits: PickUpLimits,
    private readonly onClose: () => void,
  ) {
    this.expiresAt = Date.now() + limits.lastsMs
    this.timer = setTimeout(() => this.close(), limits.lastsMs)
    this.timer.unref()
  }

  static open(limits: PickUpLimits = USUAL_LIMITS, onClose: () => void = () => {}): PickUp {
    return new PickUp(makeTemporaryFolder(FOLDER), limits, onClose)
  }

  get isOpen(): boolean {
    return !this.closed && Date.now() < this.expiresAt
  }

  /** Whether a code is this one's; however wrong it is, the answer takes as long. */
  isCode(given: string): boolean {
    const [a, b] = [
      Buffer.from(this.code),
      Buffer.from(
        given
          .toUpperCase()
          .replace(/[^A-Z0-9]/g, '')
          .padEnd(CODE_LENGTH)
          .slice(0, CODE_LENGTH),
      ),
    ]
    return a.length === b.length && timingSafeEqual(a, b) && this.isOpen
  }

  /** Takes a file's bytes. Its name is shown and offered for saving, and never used as a path. */
  async add(name: string, body: ReadableStream<Uint8Array>): Promise<AddFileResult> {
    const type = TYPES[name.split('.').at(-1)?.toLowerCase() ?? '']
    if (!this.isOpen) return { ok: false, reason: 'closed' }
    if (!type) return { ok: false, reason: 'bad-type' }
    if (this.files.length >= MAX_FILES) return { ok: false, reason: 'too-many' }
    const path = join(this.folder, randomBytes(12).toString('hex'))
    const counted = new Transform({
      transform: (chunk: Buffer, _, done) => {
        this.bytes += chunk.length
        done(this.bytes > this.limits.mostBytes ? new TooLarge() : null, chunk)
      },
    })
    try {
      await pipeline(Readable.fromWeb(body), counted, createWriteStream(path, { flags: 'wx', mode: 0o600 }))
    } catch (error) {
      this.bytes -= await stat(path).then(
        (s) => s.size,
        () => 0,
      )
      await rm(path, { force: true })
      if (error instanceof TooLarge) return { ok: false, reason: 'too-large' }
      throw error
    }
    if (!this.isOpen) {
      await rm(path, { force: true })
      return { ok: false, reason: 'closed' }
    }
    this.files.push({ name: shownName(name), type, sizeBytes: (await stat(path)).size, path })
    return { ok: true }
  }

  close(): void {
    if (this.closed) return
    this.closed = true
    clearTimeout(this.timer)
    removeTemporaryFolder(this.folder)
    this.onClose()
  }
}

class TooLarge extends Error {}

/**
 * A name that can be written into a header and an address: never cut through a letter, and without halves of letters.
 */
function shownName(name: string): string {
  return [...name.toWellFormed()].slice(0, 250).join('')
}
