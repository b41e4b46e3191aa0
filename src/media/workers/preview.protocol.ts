import type { Edit } from '@/core/model/edit'
import type { PassageId } from '@/core/model/ids'
import type { Shape } from '@/core/model/shape'
import type { SpeechOf } from '@/core/sound/ducking'
import type { Micros } from '@/core/time/micros'
import type { PreviewCopy } from '../source/previewCopies'

/** Where a preview is drawn: the recording's own frame, or the result in one shape. */
export type PreviewTarget = { kind: 'frame' } | { kind: 'shape'; shape: Shape }

/**
 * Playing: at wall time `epochMs` (performance.timeOrigin + now) the highlight is at output time `fromMicros`, and
 * moves at `rate`.
 */
export interface PlayAnchor {
  fromMicros: Micros
  epochMs: number
  rate: number
}

export type OpenReply = { ok: true } | { ok: false; fileName: string }

export interface PreviewWorker {
  /** Opens the recordings of an edit; whatever was open before is closed. */
  open(edit: Edit, files: ReadonlyMap<string, Blob>): Promise<OpenReply>
  /** Takes sound files that have come; what is open stays so. */
  setFiles(files: ReadonlyMap<string, Blob>): void
  /** Takes preview copies that have come: what plays, and what is on the way to a moment, is read from them. */
  addCopies(copies: readonly PreviewCopy[]): void
  /** Changes what is composed; draws again. */
  setEdit(edit: Edit): void
  /** Where the recordings hold speech, under which beds go down: level figures show what is heard. */
  setSpeech(speechOf: SpeechOf): void
  /** Draws `target` into `canvas` from now on. The key names it for `resize` and `detach`. */
  attach(key: string, target: PreviewTarget, canvas: OffscreenCanvas): void
  resize(key: string, width: number, height: number): void
  detach(key: string): void
  /**
   * Stops playing and shows one moment of the highlight. Of calls that come faster than frames decode, the last wins.
   */
  show(t: Micros): void
  /** Stops playing and shows a moment of a passage's recording, which may lie beyond its cut points. */
  peek(passageId: PassageId, recordingMicros: Micros): void
  play(anchor: PlayAnchor): void
  /**
   * Told about every picture drawn (`exact`: not one on the way to it), decoding errors and, once a second while
   * playing, frames drawn in that second, and the share of their sides that pictures are drawn in to keep up.
   */
  observe(onEvent: (event: PreviewEvent) => void): void
}

export type PreviewEvent =
  | { kind: 'drawn'; micros: Micros; exact: boolean }
  | { kind: 'rate'; framesPerSecond: number; share: number }
  | { kind: 'unreadable'; fileName: string; atMicros: Micros }
