import type { Edit } from '@/core/model/edit'
import type { SpeechOf } from '@/core/sound/ducking'
import { figureAt } from '@/core/sound/levelFigure'
import type { Micros } from '@/core/time/micros'
import { levelTrack } from '../sound/levelTrack'

/** Somebody who is dragging a cut changes the sound many times: it is listened to when that is over. */
const REST_MS = 400

/**
 * How loud the highlight that is previewed is, listened to in the background when a level figure is on it, and again
 * when its sound has changed.
 */
export class PreviewLevels {
  private levels: ArrayLike<number> = []
  private heard = ''
  private heardIn: ReadonlyMap<string, Blob> | null = null
  private speechOf: SpeechOf = new Map()
  private latest: { edit: Edit; files: ReadonlyMap<string, Blob> } | null = null
  private abort = new AbortController()
  private waiting: ReturnType<typeof setTimeout> | undefined

  /** `onHeard` is called when figures have changed. */
  constructor(private readonly onHeard: () => void) {}

  follow(edit: Edit, files: ReadonlyMap<string, Blob>): void {
    this.latest = { edit, files }
    const { passages, beds, joinTiming, marks } = edit.highlight
    const sounding = JSON.stringify([passages, beds, joinTiming, [...this.speechOf]])
    if (!marks.some((m) => m.kind === 'level') || (sounding === this.heard && files === this.heardIn)) return
    this.heard = sounding
    this.heardIn = files
    this.abort.abort()
    this.abort = new AbortController()
    clearTimeout(this.waiting)
    const { signal } = this.abort
    const { speechOf } = this
    this.waiting = setTimeout(() => {
      // Without its sound a figure stays flat; that a file cannot be read is told where it is played.
      void levelTrack(edit, files, speechOf, signal).then(
        (levels) => {
          if (signal.aborted) return
          this.levels = levels
          this.onHeard()
        },
        () => {},
      )
    }, REST_MS)
  }

  setSpeech(speechOf: SpeechOf): void {
    this.speechOf = speechOf
    if (this.latest) this.follow(this.latest.edit, this.latest.files)
  }

  figureAt = (t: Micros): number[] => figureAt(this.levels, t)
}
