import { edit as editSchema, type Edit } from '@/core/model/edit'
import { sampleEdit } from './edits'
import type { seeded } from './seeded'

/**
 * Three passages whose panels play the passage, another passage, and a recording on a clock of its own, at random
 * times and speeds.
 */
export function editWithFeeds(random: ReturnType<typeof seeded>): Edit {
  const edit = sampleEdit()
  const [p] = edit.highlight.passages
  const frames = (seconds: number) => (Math.round(seconds * 60) * 1_000_000) / 60
  const own = () => ({
    panelId: random.pick(['top', 'low']),
    plays: {
      kind: 'recording',
      recordingId: 'r',
      setupId: 's',
      clock:
        random.next() < 0.7
          ? {
              kind: 'own',
              inMicros: Math.round(frames(random.between(0, 20))),
              speedPercent: random.pick([100, 100, 50, 200]),
            }
          : { kind: 'together', offsetMicros: random.integer(-2_000_000, 2_000_000) },
    },
  })
  const ownOrNone = () => (random.next() < 0.8 ? [own()] : [])
  const passages = Array.from({ length: 3 }, (_, k) => {
    const inMicros = Math.round(frames(random.between(0, 25)))
    const outMicros = Math.round(inMicros + frames(random.between(3, 9)))
    const strikes = random.next() < 0.5 ? [{ fromMicros: inMicros + 1_000_000, toMicros: inMicros + 1_500_000 }] : []
    const other = {
      panelId: random.pick(['top', 'low']),
      plays: { kind: 'passage', passageId: `p${Math.max(0, k - 1)}` },
    }
    return {
      ...p,
      id: `p${k}`,
      inMicros,
      outMicros,
      strikes,
      speedPercent: random.pick([100, 100, 150, 50]),
      picture:
        random.next() < 0.3
          ? { inMicros: Math.round(frames(random.between(0, 20))), speedPercent: random.pick([90, 100, 50]) }
          : null,
      feeds: k > 0 && random.next() < 0.4 ? [other] : ownOrNone(),
    }
  })
  return editSchema.parse({ ...edit, highlight: { ...edit.highlight, passages } })
}
