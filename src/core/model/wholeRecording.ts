import type { Edit } from './edit'
import type { HighlightId, LayoutId, PassageId, SetupId } from './ids'
import { newLayout } from './layout'
import { USUAL_OUTPUT } from './outputChoice'
import { newPassage } from './passage'
import type { Recording } from './recording'
import { newSetup } from './setup'
import { STANDARD_SHAPES } from './shape'
import { NO_WORDS } from './words'

/** An edit that plays a recording from its start to its end, so that output time is recording time; never stored. */
export function wholeRecording(recording: Recording): Edit {
  const { createdAt, updatedAt, name, durationMicros, id } = recording
  const base = { schemaVersion: 1, createdAt, updatedAt, deletedAt: null } as const
  const setupId = 'whole' as SetupId
  const layoutId = 'whole' as LayoutId
  const passage = newPassage({
    id: 'whole' as PassageId,
    recordingId: id,
    inMicros: 0,
    outMicros: durationMicros,
    setupId,
    layoutId,
  })
  return {
    highlight: {
      ...base,
      id: 'whole' as HighlightId,
      name,
      passages: [passage],
      shapes: STANDARD_SHAPES.slice(0, 1),
      joinTiming: 'hold',
      beds: [],
      words: NO_WORDS,
      marks: [],
      output: USUAL_OUTPUT,
      accepted: [],
      limitDb: null,
      origin: null,
      brandId: null,
    },
    setups: [newSetup({ ...base, id: setupId, name, regions: [], ownedBy: null })],
    layouts: [
      newLayout({
        ...base,
        id: layoutId,
        name,
        arrangement: { tree: { kind: 'space' }, insets: [], backdrop: { kind: 'colour', colour: '#000000' } },
        ownedBy: null,
      }),
    ],
    recordings: [recording],
    soundFiles: [],
    imageFiles: [],
    fontFiles: [],
  }
}
