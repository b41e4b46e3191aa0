import { recordingOf, type Edit } from '../model/edit'
import type { RecordingId } from '../model/ids'
import type { Shape } from '../model/shape'
import type { Micros } from '../time/micros'
import { pictureMicrosAt, type PlacedPassage, type Run, type TimeMap } from '../time/timeMap'
import { compose } from './compose'
import type { PictureStep } from './composition'
import { panelPlay, pictureSpeed } from './feeds'
import { placePanels } from './placePanels'

/**
 * What one panel plays during a run of a passage. `inMicros`: recording time at the run's start, which may lie
 * outside the recording, whose first or last frame then stands still.
 */
export interface PanelRun {
  step: PictureStep
  recordingId: RecordingId
  inMicros: Micros
  speedPercent: number
}

/**
 * What every panel of a shape plays during a run, from the lowest to the highest, as the composition draws it in the
 * run's middle.
 */
export function panelRuns(edit: Edit, map: TimeMap, shape: Shape, placed: PlacedPassage, run: Run): PanelRun[] {
  const { passage } = placed
  const own = pictureMicrosAt(placed, run.startMicros)
  const sources = new Map(
    placePanels(edit, shape, passage, own).map(({ panel, source }) => [panel.id as string, source]),
  )
  return pictureSteps(edit, map, shape, run).map((step) => {
    const source = sources.get(step.panelId)
    const play = source ? panelPlay(map, passage, source, own, run.startMicros) : null
    return {
      step,
      recordingId: play?.recordingId ?? passage.recordingId,
      inMicros: play?.micros ?? own,
      speedPercent: play?.speedPercent ?? pictureSpeed(passage),
    }
  })
}

function pictureSteps(edit: Edit, map: TimeMap, shape: Shape, { startMicros, endMicros }: Run): PictureStep[] {
  const middle = Math.round((startMicros + endMicros) / 2)
  const composition = compose(edit, map, shape, Math.min(Math.max(0, map.lengthMicros - 1), Math.max(0, middle)))
  return (composition?.steps ?? []).filter((s): s is PictureStep => s.kind === 'picture' && s.panelId !== 'backdrop')
}

/** Whether a panel's recording begins after the run does, or ends before it: a frame then stands still. */
export function standsStill(
  edit: Edit,
  { recordingId, inMicros, speedPercent }: PanelRun,
  { startMicros, endMicros }: Run,
): boolean {
  return (
    inMicros < 0 ||
    inMicros + ((endMicros - startMicros) * speedPercent) / 100 > recordingOf(edit, recordingId).durationMicros
  )
}
