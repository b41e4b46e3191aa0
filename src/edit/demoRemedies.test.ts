import { readFileSync } from 'node:fs'
import { expect, test } from 'vitest'
import { sampleEdit } from '../../tests/support/edits'
import { toFractions } from '@/core/geometry/evenGrid'
import { twoBands } from '@/core/layout/starting'
import type { Edit } from '@/core/model/edit'
import type { PanelId } from '@/core/model/ids'
import { startingOutlets } from '@/core/model/outlet'
import { newRegion, type Role } from '@/core/model/region'
import { STANDARD_SHAPES } from '@/core/model/shape'
import { toMicros } from '@/core/time/micros'
import type { Measure } from '@/core/words/setText'
import { applyRemedy, tryRemedy } from './remedies'
import type { Finding } from '@/core/findings/finding'
import { findingsOf, NOTHING_MEASURED, type Measurements } from '@/core/findings/findings'

interface DemoHighlight {
  id: string
  name: string
  inSeconds: number
  outSeconds: number
  regions: { role: Role; name: string; bounds: { x: number; y: number; width: number; height: number } }[]
  bands: [Role, Role]
  upperShare: number
}
const shelf = JSON.parse(readFileSync('public/demo/shelf.json', 'utf8')) as {
  recordings: { id: string; highlights: DemoHighlight[] }[]
}

/** As media/demo makes them: the stream is 1080p, the others 720p. */
const sizeOf = (id: string) => (id === 'demo-ridge-cup' ? { width: 1920, height: 1080 } : { width: 1280, height: 720 })

/** A demo highlight as the Shelf makes it, in every standard shape, with a title and a caption on it. */
function demoEdit(recordingId: string, demo: DemoHighlight): Edit {
  const edit = sampleEdit()
  const [recording, setup, layout, passage] = [
    edit.recordings[0],
    edit.setups[0],
    edit.layouts[0],
    edit.highlight.passages[0],
  ]
  if (!recording || !setup || !layout || !passage) throw new Error('the sample has changed')
  const size = sizeOf(recordingId)
  recording.video = { ...recording.video, ...size }
  setup.regions = demo.regions.map((r, i) => newRegion(`r${i}` as never, r.role, r.name, toFractions(r.bounds, size)))
  layout.arrangement = twoBands(
    { id: 'upper' as PanelId, role: demo.bands[0] },
    { id: 'lower' as PanelId, role: demo.bands[1] },
    demo.upperShare,
  )
  Object.assign(passage, { inMicros: toMicros(demo.inSeconds), outMicros: toMicros(demo.outSeconds) })
  edit.highlight.shapes = [...STANDARD_SHAPES]
  return edit
}

const measure: Measure = (text, { size }) => text.length * size * 0.5
const isBad = ({ severity }: Finding) => severity !== 'note'
const outlets = [null, ...startingOutlets('2026-11-25T10:00:00.000Z')]

for (const { id, highlights } of shelf.recordings)
  for (const demo of highlights)
    test(`${demo.name}: no remedy brings a stop or a warning, alone or with all others, in any shape, for any outlet`, () => {
      const edit = demoEdit(id, demo)
      const region = edit.setups[0]?.regions[0]
      // Everything that can be known at once: a border, somebody who leans out, sound that is too quiet and peaks.
      const bounds = region?.bounds ?? { x: 0, y: 0, width: 1, height: 1 }
      const known: Omit<Measurements, 'outlet'> = {
        ...NOTHING_MEASURED,
        measure,
        loudness: { lufs: -24, peakDb: -3, momentary: [] },
        edges: new Map([
          [
            region?.id ?? '',
            { x: bounds.x + 0.004, y: bounds.y + 0.007, width: bounds.width - 0.008, height: bounds.height - 0.014 },
          ],
        ]),
        presence: new Map([
          [
            region?.id ?? '',
            {
              outside: [{ fromMicros: 1_000_000, toMicros: 2_500_000 }],
              holding: {
                ...bounds,
                x: Math.max(0, bounds.x - 0.03),
                width: Math.min(1 - Math.max(0, bounds.x - 0.03), bounds.width + 0.06),
              },
            },
          ],
        ]),
      }
      let tried = 0
      for (const outlet of outlets) {
        const before = findingsOf(edit, { ...known, outlet }, tryRemedy)
        const bad = new Set(before.filter(isBad).map((f) => f.key))
        const cures = before.filter((f) => f.remedy)
        const worseAfter = (remedied: Finding[]) => {
          const copy = structuredClone(edit)
          for (const { remedy } of remedied) if (remedy) applyRemedy(copy, remedy)
          return findingsOf(copy, { ...known, outlet }, tryRemedy).filter((f) => isBad(f) && !bad.has(f.key))
        }
        for (const one of cures) {
          tried++
          expect(worseAfter([one]), `${outlet?.name ?? 'no outlet'}: ${one.key}`).toEqual([])
        }
        expect(worseAfter(cures), `${outlet?.name ?? 'no outlet'}: all at once`).toEqual([])
      }
      expect(tried, 'something was tried').toBeGreaterThan(10)
    })
