import { describe, expect, it } from 'vitest'
import { picturesIn } from '../../../tests/support/compositions'
import { sampleEdit } from '../../../tests/support/edits'
import { editWithFeeds } from '../../../tests/support/feeds'
import { SEED, seeded } from '../../../tests/support/seeded'
import { compose } from '../compose/compose'
import type { Edit } from '../model/edit'
import { edit as editSchema } from '../model/edit'
import { timeMapOf, toRecordingMicros } from '../time/timeMap'
import type { PassageId } from '../model/ids'
import { split, strikeOut } from './passages'

const TALL = { id: 'tall', width: 1080, height: 1920 }

/** Which moment of which recording every panel shows at an output time. */
function shownAt(edit: Edit, t: number) {
  const composition = compose(edit, timeMapOf(edit.highlight), TALL, t)
  return (
    composition &&
    picturesIn(composition).map(({ step, dest }) => ({
      panel: step.panelId,
      recording: step.feed.recordingId,
      micros: step.feed.micros,
      dest,
    }))
  )
}

describe('what panels play', () => {
  it(`is the same at every time before and after a split, wherever it is (seed ${SEED})`, () => {
    const random = seeded(SEED)
    let splits = 0
    for (let round = 0; round < 300; round++) {
      const edit = editWithFeeds(random)
      const map = timeMapOf(edit.highlight)
      const at = toRecordingMicros(map, random.integer(100_000, map.lengthMicros - 100_000))
      const footage = edit.recordings[0]
      if (!at || !footage) throw new Error('nothing plays')
      const passages = split(edit.highlight.passages, at.passage.id, at.recordingMicros, 'new' as PassageId, footage)
      if (passages.length === edit.highlight.passages.length) continue
      splits++
      const after = { ...edit, highlight: { ...edit.highlight, passages } }
      expect(timeMapOf(after.highlight).lengthMicros).toBeGreaterThanOrEqual(map.lengthMicros - 1)
      for (let n = 0; n < 40; n++) {
        const t = random.integer(0, map.lengthMicros - 2)
        const [was, is] = [shownAt(edit, t), shownAt(after, t)]
        expect(is?.length, `round ${round}`).toBe(was?.length)
        // A microsecond of rounding is no other picture.
        was?.forEach((w, i) => {
          expect(is?.[i], `round ${round}, ${t}`).toMatchObject({
            panel: w.panel,
            recording: w.recording,
            dest: w.dest,
          })
          expect(
            Math.abs((is?.[i]?.micros ?? NaN) - w.micros),
            `round ${round}, ${t}, panel ${w.panel}`,
          ).toBeLessThanOrEqual(2)
        })
      }
    }
    expect(splits).toBeGreaterThan(150)
  })

  it('goes on where something is struck out, or the passage is sped up: its own clock is the output', () => {
    const edit = sampleEdit()
    const [p] = edit.highlight.passages
    if (!p) throw new Error('no passage')
    const fed = editSchema.parse({
      ...edit,
      highlight: {
        ...edit.highlight,
        passages: [
          {
            ...p,
            feeds: [
              {
                panelId: 'top',
                plays: {
                  kind: 'recording',
                  recordingId: 'r',
                  setupId: 's',
                  clock: { kind: 'own', inMicros: 30_000_000, speedPercent: 100 },
                },
              },
            ],
          },
        ],
      },
    })
    const playing = (changed: Edit, t: number) => shownAt(changed, t)?.find((s) => s.panel === 'top')?.micros
    const struck = {
      ...fed,
      highlight: {
        ...fed.highlight,
        passages: fed.highlight.passages.map((q) => strikeOut(q, { fromMicros: 14_000_000, toMicros: 16_000_000 })),
      },
    }
    const faster = {
      ...fed,
      highlight: { ...fed.highlight, passages: fed.highlight.passages.map((q) => ({ ...q, speedPercent: 200 })) },
    }
    for (const t of [0, 1_999_000, 2_001_000, 4_500_000])
      for (const changed of [fed, struck, faster]) expect(playing(changed, t)).toBe(30_000_000 + t)
  })
})
