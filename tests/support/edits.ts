import type { Edit } from '@/core/model/edit'
import { edit as editSchema } from '@/core/model/edit'
import { twoBands } from '@/core/layout/starting'
import type { PanelId } from '@/core/model/ids'
import { newRecord } from '@/core/model/record'

const base = newRecord('2026-11-24T10:00:00.000Z')

/** A valid edit of one 1080p60 recording of a minute: 10 s from 0:12 on, face over game in a tall frame. */
export function sampleEdit(): Edit {
  return editSchema.parse({
    highlight: {
      ...base,
      id: 'h',
      name: 'Last gate',
      shapes: [{ id: 'tall', width: 1080, height: 1920 }],
      passages: [
        { id: 'p', recordingId: 'r', inMicros: 12_000_000, outMicros: 22_000_000, setupId: 's', layoutId: 'l' },
      ],
    },
    setups: [
      {
        ...base,
        id: 's',
        name: 'Evening stream',
        ownedBy: 'h',
        regions: [
          {
            id: 'f',
            role: 'face',
            name: 'Wren',
            bounds: { x: 1400 / 1920, y: 756 / 1080, width: 480 / 1920, height: 270 / 1080 },
          },
          {
            id: 'g',
            role: 'game',
            name: 'Game',
            bounds: { x: 430 / 1920, y: 30 / 1080, width: 900 / 1920, height: 1020 / 1080 },
          },
        ],
      },
    ],
    layouts: [
      {
        ...base,
        id: 'l',
        name: 'Face over game',
        ownedBy: 'h',
        arrangement: twoBands(
          { id: 'top' as PanelId, role: 'face' },
          { id: 'low' as PanelId, role: 'game' },
          608 / 1920,
        ),
      },
    ],
    recordings: [
      {
        ...base,
        id: 'r',
        name: 'Ridge Cup',
        fileName: 'ridge.mp4',
        sizeBytes: 1000,
        recordedAt: '2026-11-24T10:00:00.000Z',
        durationMicros: 60_000_000,
        originMicros: 0,
        video: {
          width: 1920,
          height: 1080,
          rotation: 0,
          frameRate: { num: 60, den: 1 },
          variableFrameRate: false,
          firstFrameMicros: 0,
          codec: 'H.264',
        },
        sound: { codec: 'AAC', sampleRate: 48000, channels: 2, startMicros: 0 },
        source: 'kept',
      },
    ],
  })
}
