import { beforeEach, expect, it } from 'vitest'
import { sampleEdit } from '../../../tests/support/edits'
import { placePanels } from '@/core/compose/placePanels'
import type { RegionProposal } from '@/core/detect/regions/proposal'
import type { Edit } from '@/core/model/edit'
import { Session } from '@/store/session'
import { acceptAllFound } from './acceptFound'

const SIZE = { width: 1920, height: 1080 }
const TALL = { id: 'tall', width: 1080, height: 1920 }

let session: Session<Edit>
const setup = () => session.value.setups[0] as Edit['setups'][number]
const layout = () => session.value.layouts[0] as Edit['layouts'][number]
const passage = () => session.value.highlight.passages[0] as Edit['highlight']['passages'][number]
const found = (proposals: RegionProposal[]) => ({
  setupId: setup().id,
  passageId: passage().id,
  size: SIZE,
  proposals,
})
const quarters = [0, 1, 2, 3].map((n): RegionProposal => ({
  found: 'tile',
  role: 'speaker',
  rect: { x: (n % 2) * 960, y: Math.floor(n / 2) * 540, width: 960, height: 540 },
  confidence: 0.95,
}))

beforeEach(() => {
  session = new Session(sampleEdit(), [], 0, () => Promise.resolve('written' as const))
  session.extend((draft) => draft.setups.forEach((s) => (s.isGuess = true)))
})

it('a layout that asks for what is not there becomes the one that suits what is, in the same step', async () => {
  const before = session.value
  expect(await acceptAllFound(session, found(quarters))).toBe(true)
  const placed = placePanels(session.value, TALL, passage())
  expect(new Set(placed.map((p) => p.region?.id)).size).toBe(4)
  session.undo()
  expect(session.value).toEqual(before)
})

it('a layout that has all it asks for stays, unless it is to be chosen anew', async () => {
  const stream: RegionProposal[] = [
    { found: 'inset', role: 'face', rect: { x: 1400, y: 756, width: 480, height: 270 }, confidence: 0.95 },
    { found: 'content', role: 'game', rect: { x: 0, y: 0, width: 1400, height: 1080 }, confidence: 0.6 },
  ]
  const { name } = layout()
  await acceptAllFound(session, found(stream))
  expect(layout().name).toBe(name)
  session.undo()
  session.extend((draft) => draft.layouts.forEach((l) => (l.name = 'as it was made')))
  await acceptAllFound(session, found(stream), { anew: true })
  expect(layout().name).not.toBe('as it was made')
  expect(layout().adapts).toBe(true)
})

it('slides with a camera over them are shown whole over a drawn ground, upright', async () => {
  session.extend((draft) => void (draft.highlight.shapes = [TALL]))
  const webinar: RegionProposal[] = [
    { found: 'inset', role: 'speaker', rect: { x: 1398, y: 684, width: 502, height: 378 }, confidence: 0.95 },
    { found: 'slides', role: 'slides', rect: { x: 0, y: 0, width: 1920, height: 1080 }, confidence: 0.7 },
  ]
  await acceptAllFound(session, found(webinar), { anew: true })
  expect(layout().name).toBe('Afloat')
})

it('both cameras over a game are in the layout', async () => {
  session.extend((draft) => void (draft.highlight.shapes = [TALL]))
  const cameras = [40, 1440].map((x): RegionProposal => ({
    found: 'inset',
    role: 'face',
    rect: { x, y: 40, width: 440, height: 260 },
    confidence: 0.97,
  }))
  const game: RegionProposal = {
    found: 'content',
    role: 'game',
    rect: { x: 480, y: 300, width: 1440, height: 780 },
    confidence: 0.6,
  }
  await acceptAllFound(session, found([...cameras, game]), { anew: true })
  const shown = placePanels(session.value, TALL, passage()).map((p) => p.region?.role)
  expect(shown.sort()).toEqual(['face', 'face', 'game'])
})

it('nothing is done where it is not wanted any more once it is known what suits', async () => {
  const before = session.value
  expect(await acceptAllFound(session, found(quarters), { wanted: () => false })).toBe(false)
  expect(session.value).toBe(before)
})
