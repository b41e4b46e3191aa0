import { beforeEach, describe, expect, it } from 'vitest'
import {
  acceptProposals,
  confirmRegions,
  rejectProposal,
  applySetup,
  copyRegion,
  drawRegion,
  orderRegion,
  setFocus,
  setRegion,
  setRegionPixels,
} from './regions'
import { sampleEdit } from '../../tests/support/edits'
import { placePanels } from '@/core/compose/placePanels'
import { contains } from '@/core/geometry/rect'
import { twoBands } from '@/core/layout/starting'
import type { Edit } from '@/core/model/edit'
import type { PanelId, RegionId, SetupId } from '@/core/model/ids'
import type { Passage } from '@/core/model/passage'
import { newRecord } from '@/core/model/record'
import { newRegion, WHOLE_FRAME } from '@/core/model/region'
import { newSetup } from '@/core/model/setup'
import type { Shape } from '@/core/model/shape'
import { Session } from '@/store/session'

let session: Session<Edit>
const SETUP = 's' as SetupId
const FACE = 'f' as RegionId
const setup = () => session.value.setups[0] as Edit['setups'][number]
const regions = () => setup().regions

beforeEach(() => {
  session = new Session(sampleEdit(), [], 0, () => Promise.resolve('written' as const))
})

describe('regions', () => {
  it('come to lie on even pixels, and a guess is nobody’s guess any more', () => {
    session.extend((draft) => draft.setups.forEach((s) => (s.isGuess = true)))
    expect(setup().isGuess).toBe(true)
    setRegionPixels(
      session,
      {
        frame: { width: 1920, height: 1080 },
        id: FACE,
        pixels: { x: 101, y: 99, width: 301, height: 200 },
        label: 'Move',
      },
      'g',
    )
    const { x, y, width, height } = regions()[0]?.bounds ?? { x: 0, y: 0, width: 0, height: 0 }
    for (const pixels of [x * 1920, y * 1080, width * 1920, height * 1080])
      expect(Math.abs(pixels / 2 - Math.round(pixels / 2))).toBeLessThan(1e-9)
    expect(setup().isGuess).toBe(false)
  })

  it('take their focus along, and keep it inside', () => {
    const frame = { width: 1920, height: 1080 }
    setRegionPixels(
      session,
      { frame, id: FACE, pixels: { x: 1400, y: 700, width: 400, height: 200 }, label: 'Move' },
      'a',
    )
    setFocus(session, { frame, id: FACE, pixels: { x: 1500, y: 750, width: 200, height: 100 }, label: 'Focus' })
    setRegionPixels(
      session,
      { frame, id: FACE, pixels: { x: 200, y: 100, width: 800, height: 400 }, label: 'Move' },
      'b',
    )
    const { x, y, width, height } = regions()[0]?.focus ?? { x: 0, y: 0, width: 0, height: 0 }
    expect([x * 1920, y * 1080, width * 1920, height * 1080].map(Math.round)).toEqual([400, 200, 400, 200])
    setFocus(session, { frame, id: FACE, pixels: { x: 950, y: 450, width: 200, height: 100 }, label: 'Focus' })
    expect(contains(regions()[0]?.bounds ?? WHOLE_FRAME, regions()[0]?.focus ?? WHOLE_FRAME)).toBe(true)
    session.undo()
    session.undo()
    session.undo()
    expect(Math.round((regions()[0]?.focus?.x ?? 1) * 1920)).not.toBe(400)
  })

  it('are copied beside themselves under a free name, unlocked', () => {
    setRegion(session, { id: FACE, label: 'Lock', change: { locked: true } })
    const id = 'copy' as RegionId
    copyRegion(session, { id: FACE, copyId: id })
    expect(regions().map((r) => r.name)).toEqual(['Wren', 'Wren (2)', 'Game'])
    expect(regions()[1]).toMatchObject({ id, locked: false })
    expect(regions()[1]?.bounds.x).toBeLessThanOrEqual(0.75 + 1e-9)
  })

  it('are drawn in one step, under the first role that is free', () => {
    const frame = { width: 1920, height: 1080 }
    const id = 'drawn' as RegionId
    for (const width of [40, 80, 161])
      drawRegion(session, { setupId: SETUP, frame, id, pixels: { x: 10, y: 21, width, height: 60 } }, 'one drag')
    expect(regions().at(-1)).toMatchObject({ id, role: 'speaker', name: 'Speaker' })
    expect((regions().at(-1)?.bounds.width ?? 0) * 1920).toBeCloseTo(160, 6)
    session.undo()
    expect(regions()).toHaveLength(2)
  })

  it('change places, and stay where they are at the ends', () => {
    orderRegion(session, { id: FACE, by: -1 })
    expect(regions().map((r) => r.name)).toEqual(['Wren', 'Game'])
    orderRegion(session, { id: FACE, by: 1 })
    expect(regions().map((r) => r.name)).toEqual(['Game', 'Wren'])
  })
})

describe('proposals', () => {
  const half = { x: 0, y: 0, width: 0.5, height: 1 }
  const other = { x: 0.5, y: 0, width: 0.5, height: 1 }

  it('take the place of what was guessed for their roles, more of a role are added; all in one step', () => {
    session.extend((draft) => draft.setups.forEach((s) => (s.isGuess = true)))
    acceptProposals(session, {
      setupId: SETUP,
      proposals: [
        { role: 'face', bounds: half },
        { role: 'speaker', bounds: half },
        { role: 'speaker', bounds: other },
      ],
    })
    expect(regions().map((r) => [r.role, r.name, r.bounds.x])).toEqual([
      ['face', 'Wren', 0],
      ['game', 'Game', 430 / 1920],
      ['speaker', 'Speaker', 0],
      ['speaker', 'Speaker (2)', 0.5],
    ])
    session.undo()
    expect(regions()).toHaveLength(2)
    expect(regions()[0]?.bounds.x).toBe(1400 / 1920)
  })

  it('all of them: regions that were only guessed and that nothing was found for go', () => {
    session.extend((draft) => draft.setups.forEach((s) => (s.isGuess = true)))
    const quarters = [0, 1, 2, 3].map((n) => ({
      role: 'speaker',
      bounds: { x: (n % 2) / 2, y: Math.floor(n / 2) / 2, width: 0.5, height: 0.5 },
    }))
    acceptProposals(session, { setupId: SETUP, proposals: quarters, all: true }, 'accept')
    expect(regions().map((r) => r.role)).toEqual(['speaker', 'speaker', 'speaker', 'speaker'])
    session.undo()
    expect(regions().map((r) => r.name)).toEqual(['Wren', 'Game'])
    // What somebody has set is nobody's guess: it stays.
    session.extend((draft) => draft.setups.forEach((s) => (s.isGuess = false)))
    acceptProposals(session, { setupId: SETUP, proposals: quarters, all: true })
    expect(regions().map((r) => r.role)).toContain('game')
  })

  it('never move what somebody placed, unless that one is chosen', () => {
    const nearby = { x: 1390 / 1920, y: 740 / 1080, width: 500 / 1920, height: 290 / 1080 }
    acceptProposals(session, {
      setupId: SETUP,
      proposals: [
        { role: 'face', bounds: nearby },
        { role: 'hud', bounds: { x: 0, y: 0, width: 0.1, height: 0.1 } },
      ],
      all: true,
    })
    expect(regions().map((r) => [r.role, r.bounds.x])).toEqual([
      ['face', 1400 / 1920],
      ['game', 430 / 1920],
      ['hud', 0],
    ])
    acceptProposals(session, { setupId: SETUP, proposals: [{ role: 'face', bounds: nearby }] })
    expect(regions()[0]).toMatchObject({ name: 'Wren', bounds: nearby })
    acceptProposals(session, { setupId: SETUP, proposals: [{ role: 'face', bounds: half }] })
    expect(regions().map((r) => r.role)).toEqual(['face', 'game', 'hud', 'face'])
    expect(regions()[0]?.bounds).toEqual(nearby)
  })

  it('that were taken in by themselves are guesses until somebody touches them, and are looked for anew till then', () => {
    const [high, low] = [0, 0.5].map((y) => ({ x: 0, y, width: 0.1, height: 0.1 })) as [typeof half, typeof half]
    const found = (bounds: typeof half) =>
      acceptProposals(session, { setupId: SETUP, proposals: [{ role: 'hud', bounds }], all: true, byItself: true })
    found(high)
    expect(regions().map((r) => r.isGuess)).toEqual([undefined, undefined, true])
    found(low)
    expect(regions().map((r) => r.role)).toEqual(['face', 'game', 'hud'])
    expect(regions()[2]).toMatchObject({ bounds: low, isGuess: true })
    const id = regions()[2]?.id as RegionId
    setRegion(session, { id, label: 'Name region', change: { name: 'Score' } })
    expect(regions()[2]?.isGuess).toBeUndefined()
    found(high)
    expect(regions()[2]?.bounds).toEqual(low)
    session.undo()
    confirmRegions(session, { setupId: SETUP })
    expect(regions().some((r) => r.isGuess)).toBe(false)
  })

  it('are called what somebody called them before', () => {
    acceptProposals(session, { setupId: SETUP, proposals: [{ role: 'hud', bounds: half, name: 'Height' }] })
    acceptProposals(session, { setupId: SETUP, proposals: [{ role: 'chat', bounds: other, name: 'Height' }] })
    expect(regions().map((r) => r.name)).toEqual(['Wren', 'Game', 'Height', 'Height (2)'])
  })

  it('that somebody rejected are not taken in again, nor ones hardly different; until that is undone', () => {
    const hud = { role: 'hud', bounds: { x: 0.1, y: 0.1, width: 0.2, height: 0.2 } }
    const nearby = { ...hud, bounds: { ...hud.bounds, x: 0.11 } }
    rejectProposal(session, { setupId: SETUP, proposal: hud })
    acceptProposals(session, { setupId: SETUP, proposals: [nearby], all: true })
    expect(regions().map((r) => r.role)).toEqual(['face', 'game'])
    const elsewhere = { ...hud, bounds: { ...hud.bounds, x: 0.7 } }
    acceptProposals(session, { setupId: SETUP, proposals: [elsewhere, { ...nearby, role: 'chat' }], all: true })
    expect(regions().map((r) => r.role)).toEqual(['face', 'game', 'hud', 'chat'])
    session.undo()
    session.undo()
    session.undo()
    acceptProposals(session, { setupId: SETUP, proposals: [nearby], all: true })
    expect(regions().map((r) => r.role)).toEqual(['face', 'game', 'hud'])
  })

  it('leave a locked region alone', () => {
    setRegion(session, { id: FACE, label: 'Lock', change: { locked: true } })
    acceptProposals(session, { setupId: SETUP, proposals: [{ role: 'face', bounds: half }] })
    expect(regions().map((r) => [r.name, r.bounds.x])).toEqual([
      ['Wren', 1400 / 1920],
      ['Game', 430 / 1920],
      ['Face', 0],
    ])
  })

  it('of two people are shown one above the other where two bands ask for speakers', () => {
    acceptProposals(session, {
      setupId: SETUP,
      proposals: [
        { role: 'speaker', bounds: half },
        { role: 'speaker', bounds: other },
      ],
    })
    session.extend((draft) => {
      const [layout] = draft.layouts
      if (layout)
        layout.arrangement = twoBands(
          { id: 'a' as PanelId, role: 'speaker' },
          { id: 'b' as PanelId, role: 'speaker' },
          0.5,
        )
    })
    const edit = session.value
    const placed = placePanels(edit, edit.highlight.shapes[0] as Shape, edit.highlight.passages[0] as Passage)
    expect(placed.map((p) => p.region?.bounds.x)).toEqual([0, 0.5])
  })
})

describe('a kept setup', () => {
  const kept = newSetup({
    ...newRecord('2026-11-25T10:00:00.000Z'),
    id: 'k' as SetupId,
    name: 'Club call',
    regions: [newRegion('x' as RegionId, 'speaker', 'Odo', { x: 0, y: 0, width: 0.5, height: 1 })],
    ownedBy: null,
    tags: ['call'],
  })

  it('is applied as a copy that remembers what it is of, and undone in one step', () => {
    applySetup(session, { setupId: SETUP, kept })
    expect(setup()).toMatchObject({
      id: SETUP,
      ownedBy: 'h',
      name: 'Club call',
      basedOn: 'k',
      tags: ['call'],
      regions: [{ name: 'Odo' }],
    })
    expect(regions()[0]?.id).not.toBe('x')
    session.undo()
    expect(setup()).toMatchObject({
      name: 'Evening stream',
      basedOn: null,
      regions: [{ name: 'Wren' }, { name: 'Game' }],
    })
  })
})
