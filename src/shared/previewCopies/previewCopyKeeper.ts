import type { Edit } from '@/core/model/edit'
import { recordingOf } from '@/core/model/edit'
import type { RecordingId } from '@/core/model/ids'
import { copyFormOf } from '@/core/picture/previewCopy'
import { toSeconds } from '@/core/time/micros'
import { PIECE_MICROS, piecesOf, type Piece } from '@/core/time/pieces'
import { timeMapOf } from '@/core/time/timeMap'
import { note } from '@/diagnostics/note'
import type { Player } from '@/media/playback/player'
import type { PreviewCopy } from '@/media/source/previewCopies'
import type { PreviewCopyWorker } from '@/media/workers/previewCopy.protocol'
import { startWorker, type StartedWorker } from '@/media/workers/startWorker'
import { whenCalm } from '@/ui/whenCalm'
import { keepPreviewCopy, previewCopiesOf, readPreviewSettings } from '@/store/previewCopies'

/** One copy is made at a time, in whichever tab. */
const LOCK = 'brimble-preview-copies'

/** Copies are not made where the browser has less room than this left: it is for what cannot be made again. */
const ROOM_LEFT = 256 * 2 ** 20

/** A highlight that is played: its edit as it stands, and its recordings' bytes by id. */
export interface Played {
  edit: () => Edit
  files: ReadonlyMap<string, Blob>
  player: Pick<Player, 'positionMicros' | 'addCopies'>
}

/**
 * Makes preview copies of what a highlight plays, from where somebody is on, and keeps them; those that are kept
 * already are taken at once. `changed`: the highlight has become another one. Stops at `close`.
 */
export class PreviewCopyKeeper {
  private readonly taken = new Set<string>()
  /** Pieces that cannot be copied; the recording is read in their place. */
  private readonly failed = new Set<string>()
  private readonly ended = new AbortController()
  private worker: StartedWorker<PreviewCopyWorker> | null = null
  private wake = () => {}

  constructor(private readonly played: Played) {
    // A screen that is being opened has pictures to show first.
    const stop = whenCalm(() => void this.begin())
    this.ended.signal.addEventListener('abort', stop)
  }

  private begin(): Promise<void> {
    return this.run().catch((error: unknown) => note('preview copies', error))
  }

  changed(): void {
    this.wake()
  }

  close(): void {
    this.ended.abort()
    this.endWorker()
    this.wake()
  }

  private async run(): Promise<void> {
    while (!this.ended.signal.aborted) {
      const woken = new Promise<void>((resolve) => (this.wake = resolve))
      const wanted = await this.wanted()
      await this.takeKept(wanted)
      const next = wanted.find((piece) => this.isMissing(piece))
      if (next && (await hasRoom())) await this.makeAlone(next, wanted)
      else {
        // Kernel and decoder are memory that nobody needs meanwhile.
        this.endWorker()
        await woken
      }
    }
  }

  /** The pieces that there should be, as many as there may be, the most urgent first. */
  private async wanted(): Promise<Piece[]> {
    const edit = this.played.edit()
    const formOf = (id: RecordingId) => copyFormOf(recordingOf(edit, id))
    const pieces = piecesOf(
      edit,
      timeMapOf(edit.highlight),
      this.played.player.positionMicros,
      (id) => formOf(id) !== null,
    )
    const { maxBytes } = await readPreviewSettings()
    let bytes = 0
    return pieces.filter(({ recordingId }) => {
      bytes += ((formOf(recordingId)?.bitrate ?? 0) / 8) * toSeconds(PIECE_MICROS)
      return bytes <= maxBytes
    })
  }

  private isMissing(piece: Piece): boolean {
    return !this.taken.has(keyOf(piece)) && !this.failed.has(keyOf(piece))
  }

  private async takeKept(wanted: readonly Piece[]): Promise<void> {
    this.take(await previewCopiesOf(wanted.filter((piece) => !this.taken.has(keyOf(piece)))))
  }

  private take(copies: readonly PreviewCopy[]): void {
    if (copies.length === 0) return
    for (const copy of copies) this.taken.add(keyOf(copy))
    this.played.player.addCopies(copies.map(({ recordingId, index, file }) => ({ recordingId, index, file })))
  }

  private async makeAlone(piece: Piece, wanted: readonly Piece[]): Promise<void> {
    const { signal } = this.ended
    await navigator.locks
      .request(LOCK, { signal }, async () => {
        // Another tab may have made it meanwhile.
        await this.takeKept([piece])
        if (this.isMissing(piece)) await this.make(piece, wanted)
      })
      .catch((error: unknown) => {
        if (!signal.aborted) throw error
      })
  }

  private async make(piece: Piece, wanted: readonly Piece[]): Promise<void> {
    const recording = recordingOf(this.played.edit(), piece.recordingId)
    const source = this.played.files.get(piece.recordingId)
    if (!source) return void this.failed.add(keyOf(piece))
    if (!this.worker || this.worker.isBroken())
      this.worker = startWorker<PreviewCopyWorker>(
        () => new Worker(new URL('@/media/workers/previewCopy.worker.ts', import.meta.url), { type: 'module' }),
      )
    const fromMicros = piece.index * PIECE_MICROS
    const made = await this.worker.remote
      .make(recording, source, fromMicros, fromMicros + PIECE_MICROS)
      .catch((error: unknown) => {
        note('preview copies', error)
        return { kind: 'failed' } as const
      })
    if (made.kind === 'failed') return void this.failed.add(keyOf(piece))
    if (made.kind === 'stopped' || this.ended.signal.aborted) return
    // Taken as it is kept: what a worker has just made may lie in memory.
    if (await keepPreviewCopy(piece, made.file, wanted)) await this.takeKept([piece])
    else this.failed.add(keyOf(piece))
  }

  private endWorker(): void {
    this.worker?.end()
    this.worker = null
  }
}

const keyOf = ({ recordingId, index }: Piece) => `${recordingId} ${index}`

async function hasRoom(): Promise<boolean> {
  const { quota, usage } = (await navigator.storage?.estimate?.()) ?? {}
  return quota === undefined || usage === undefined || quota - usage > ROOM_LEFT
}
