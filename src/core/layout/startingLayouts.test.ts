import { describe, expect, it } from 'vitest'
import { areaOf } from '../geometry/rect'
import type { InsetId, PanelId } from '../model/ids'
import { arrangement as arrangementSchema } from '../model/layout'
import { STANDARD_SHAPES, type Shape } from '../model/shape'
import { derive } from './arrangementFor'
import { solve } from './solve'
import { arrangeFor, STARTING_LAYOUTS, type StartingLayout } from './startingLayouts'

const STREAM = ['face', 'game', 'hud']
const CALL = ['speaker', 'speaker', 'speaker', 'speaker']
const WEBINAR = ['slides', 'speaker']
const arranged = (starting: StartingLayout, roles: string[]) =>
  arrangeFor(
    starting,
    roles,
    (role, n) => `${role} ${n}` as PanelId,
    () => 'inset' as InsetId,
  )
const named = (id: string) => STARTING_LAYOUTS.find((s) => s.id === id) as StartingLayout
const tall = STANDARD_SHAPES[0] as Shape

describe('starting layouts', () => {
  it('are valid, with panels of their own, and have names of their own', () => {
    expect(new Set(STARTING_LAYOUTS.map((s) => s.name)).size).toBe(STARTING_LAYOUTS.length)
    expect(STARTING_LAYOUTS.length).toBeGreaterThanOrEqual(12)
    for (const starting of STARTING_LAYOUTS)
      for (const roles of [STREAM, CALL, WEBINAR, []]) {
        const made = arranged(starting, roles)
        expect(arrangementSchema.parse(made)).toEqual(made)
        const ids = solve(made, tall).panels.map((p) => p.panel.id)
        expect(new Set(ids).size).toBe(ids.length)
      }
  })

  it('leave nothing too small to be seen in any shape', () => {
    for (const starting of STARTING_LAYOUTS)
      for (const shape of STANDARD_SHAPES) {
        const { panels, areas } = solve(derive(arranged(starting, STREAM), shape), shape)
        for (const { panel, rect } of panels) {
          expect(areaOf(rect) / areaOf(shape), `${starting.name}, ${panel.role}, ${shape.id}`).toBeGreaterThan(0.04)
          expect(
            Math.min(rect.width, rect.height),
            `${starting.name}, ${panel.role}, ${shape.id}`,
          ).toBeGreaterThanOrEqual(100)
        }
        // Words in a wide strip, never in a narrow column.
        for (const { rect } of areas) expect(rect.width).toBe(shape.width)
      }
  })

  it('ask for what a setup has', () => {
    const rolesOf = (id: string, roles: string[]) =>
      solve(arranged(named(id), roles), tall).panels.map((p) => p.panel.role)
    expect(rolesOf('face-over-game', STREAM)).toEqual(['face', 'game'])
    expect(rolesOf('face-over-game', WEBINAR)).toEqual(['speaker', 'slides'])
    expect(rolesOf('two-people', CALL)).toEqual(['speaker', 'speaker'])
    expect(rolesOf('two-people', STREAM)).toEqual(['face', 'game'])
    expect(rolesOf('four-bands', STREAM)).toEqual(['whole', 'whole', 'whole', 'whole'])
    expect(rolesOf('extra-strip', STREAM)).toEqual(['face', 'hud', 'game'])
  })

  it('give a landscape face all its width, and equal parts to the pixel', () => {
    const rects = (id: string, shape: Shape) =>
      solve(derive(arranged(named(id), STREAM), shape), shape).panels.map((p) => p.rect)
    expect(rects('face-over-game', tall).map((r) => r.height)).toEqual([608, 1312])
    expect(rects('three-bands', { id: 'large', width: 2160, height: 3840 }).map((r) => r.height)).toEqual([
      1280, 1280, 1280,
    ])
    expect(rects('four-bands', tall).map((r) => r.height)).toEqual([480, 480, 480, 480])
  })
})
