import { recordingOf, type Edit } from '../model/edit'
import { frameAtMicros, frameStartMicros, framesPerSecond, type FrameRate } from '../time/frameRate'
import type { Micros } from '../time/micros'
import { formatTimecode, framesInHour, frameTimecode } from '../time/timecode'
import { timeMapOf } from '../time/timeMap'
import { cleanLabel } from './mark'

/** Timecode counts frames in seconds: what has fewer than one (a single picture) is listed at this rate. */
const USUAL_RATE: FrameRate = { num: 30, den: 1 }

function rateOf(edit: Edit): FrameRate {
  const [first] = edit.highlight.passages
  const rate = first ? recordingOf(edit, first.recordingId).video.frameRate : USUAL_RATE
  return framesPerSecond(rate) < 1 ? USUAL_RATE : rate
}

/**
 * A highlight's cuts as a CMX 3600 edit decision list, at its first recording's rate: an event a run, speeds as M2,
 * dissolves as such; other joins are cuts with a comment. Lists begin an hour in, as is the custom. What they cannot
 * say is told in comments.
 */
export function writeEditList(edit: Edit): string {
  const map = timeMapOf(edit.highlight)
  const rate = rateOf(edit)
  const onFrame = (t: Micros) => frameStartMicros(frameAtMicros(t, rate), rate)
  const time = (t: Micros) => formatTimecode(onFrame(t), rate)
  /** On the record side: frames from the hour on. */
  const recordTime = (t: Micros) => frameTimecode(framesInHour(rate) + frameAtMicros(t, rate), rate)
  const lines = [
    `TITLE: ${cleanLabel(edit.highlight.name).slice(0, 70)}`,
    'FCM: NON-DROP FRAME',
    ...notKeptInEditList(edit).map((note) => `* NOTE: ${note}`),
    '',
  ]
  let number = 0
  for (const { passage, runs, index } of map.passages)
    for (const [n, run] of runs.entries()) {
      const join = n === 0 ? map.joins.find((j) => j.index === index - 1) : undefined
      const frames = join ? Math.max(1, frameAtMicros(join.toMicros - join.fromMicros, rate)) : 0
      const kind = join?.join.kind === 'dissolve' ? `D    ${String(frames).padStart(3, '0')}` : 'C       '
      const recording = recordingOf(edit, passage.recordingId)
      const speed = passage.speedPercent / 100
      const length = run.endMicros - run.startMicros
      number++
      lines.push(
        `${String(number).padStart(3, '0')}  AX       ${recording.sound && !passage.sound.muted ? 'B ' : 'V '}    ${kind} ${time(run.inMicros)} ${time(run.inMicros + Math.round(length * speed))} ${recordTime(run.startMicros)} ${recordTime(run.endMicros)}`,
      )
      if (passage.speedPercent !== 100)
        lines.push(
          `M2   AX             ${(framesPerSecond(rate) * speed).toFixed(1).padStart(5, '0')}                ${time(run.inMicros)}`,
        )
      lines.push(`* FROM CLIP NAME: ${cleanLabel(recording.fileName)}`)
      if (join && join.join.kind !== 'dissolve') lines.push(`* COMMENT: ${join.join.kind}, ${frames} frames`)
      lines.push('')
    }
  return `${lines.join('\r\n')}\r\n`
}

/** What of a highlight a cut list cannot say, in words. */
export function notKeptInEditList({ highlight }: Edit): string[] {
  const { passages, beds, marks, words } = highlight
  const notes = ['It has one picture: panels and what they play by themselves are left out.']
  if (passages.some((p) => p.join.kind !== 'cut' && p.join.kind !== 'dissolve'))
    notes.push('Joins other than dissolves are cuts, with a comment.')
  if (beds.length > 0) notes.push('Music and voices underneath are left out.')
  if (marks.length > 0 || words.titles.length > 0 || words.cues.length > 0)
    notes.push('Titles, captions and marks are left out.')
  if (passages.some((p) => p.picture)) notes.push('Pictures that run by themselves are listed with their sound.')
  return notes
}
