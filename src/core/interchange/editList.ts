import { recordingOf, type Edit } from '../model/edit'
import { frameAtMicros, frameStartMicros, framesPerSecond, type FrameRate } from '../time/frameRate'
import { MICROS_PER_SECOND, type Micros } from '../time/micros'
import { formatTimecode } from '../time/timecode'
import { timeMapOf } from '../time/timeMap'
import { cleanLabel } from './mark'

/** Lists begin an hour in, as is the custom. */
const FIRST_RECORD = 3600 * MICROS_PER_SECOND

/** Timecode counts frames in seconds: what has fewer than one (a single picture) is listed at this rate. */
const USUAL_RATE: FrameRate = { num: 30, den: 1 }

function rateOf(edit: Edit): FrameRate {
  const [first] = edit.highlight.passages
  const rate = first ? recordingOf(edit, first.recordingId).video.frameRate : USUAL_RATE
  return framesPerSecond(rate) < 1 ? USUAL_RATE : rate
}

/**
 * A highlight's cuts as a CMX 3600 edit decision list, at its first recording's rate: an event a run, speeds as M2, dissolves as such; other joins are cuts with a comment.
 * What lists cannot say (panels, words, music) is not in it.
 */
export function writeEditList(edit: Edit): string {
  const map = timeMapOf(edit.highlight)
  const rate = rateOf(edit)
  const onFrame = (t: Micros) => frameStartMicros(frameAtMicros(t, rate), rate)
  const time = (t: Micros) => formatTimecode(onFrame(t), rate)
  const lines = [`TITLE: ${cleanLabel(edit.highlight.name).slice(0, 70)}`, 'FCM: NON-DROP FRAME', '']
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
      lines.push(`${String(number).padStart(3, '0')}  AX       ${recording.sound && !passage.sound.muted ? 'B ' : 'V '}    ${kind} ${time(run.inMicros)} ${time(run.inMicros + Math.round(length * speed))} ${time(FIRST_RECORD + run.startMicros)} ${time(FIRST_RECORD + run.endMicros)}`)
      if (passage.speedPercent !== 100) lines.push(`M2   AX             ${(framesPerSecond(rate) * speed).toFixed(1).padStart(5, '0')}                ${time(run.inMicros)}`)
      lines.push(`* FROM CLIP NAME: ${cleanLabel(recording.fileName)}`)
      if (join && join.join.kind !== 'dissolve') lines.push(`* COMMENT: ${join.join.kind}, ${frames} frames`)
      lines.push('')
    }
  return `${lines.join('\r\n')}\r\n`
}
