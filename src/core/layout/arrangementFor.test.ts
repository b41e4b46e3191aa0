import { describe, expect, it } from 'vitest'
import { areaOf, centreOf } from '../geometry/rect'
import type { InsetId, PanelId } from '../model/ids'
import type { Anchor, Inset } from '../model/inset'
import type { Arrangement, LayoutNode } from '../model/layout'
import { newPanel } from '../model/panel'
import { STANDARD_SHAPES, type Shape } from '../model/shape'
import { BASE, derive, insetInBase, turnsInto } from './arrangementFor'
import { insetRect, solve } from './solve'

const shapeNamed = (id: string) => STANDARD_SHAPES.find((s) => s.id === id) as Shape
const [wide, square] = [shapeNamed('wide'), shapeNamed('square')]
const backdrop = { kind: 'colour', colour: '#000000' } as const
const panel = (id: string, turn: 0 | 1 = 0) => newPanel(id as PanelId, 'game', { turn })
const column = (...nodes: LayoutNode[]): Arrangement => ({
  backdrop,
  insets: [],
  tree: {
    kind: 'stack',
    axis: 'column',
    gap: 0,
    children: nodes.map((node) => ({ extent: { kind: 'weight', weight: 1 }, node })),
  },
})
const inset = (anchor: Anchor, over: Partial<Inset> = {}): Inset => ({
  id: 'i' as InsetId,
  anchor,
  dx: 0.04,
  dy: 0.03,
  width: 0.4,
  proportion: 16 / 9,
  panel: panel('f'),
  ...over,
})
const rectsIn = (arrangement: Arrangement, shape: Shape) => solve(derive(arrangement, shape), shape)

describe('an arrangement for another shape', () => {
  it('has its rows side by side in a wide one, four equal ones two by two, and is itself in a square', () => {
    expect(rectsIn(column(panel('a'), panel('b')), wide).panels.map((p) => p.rect)).toEqual([
      { x: 0, y: 0, width: 960, height: 1080 },
      { x: 960, y: 0, width: 960, height: 1080 },
    ])
    expect(
      rectsIn(column(panel('a'), panel('b'), panel('c'), panel('d')), wide).panels.map(
        ({ rect }) => `${rect.x} ${rect.y} ${rect.width} × ${rect.height}`,
      ),
    ).toEqual(['0 0 960 × 540', '960 0 960 × 540', '0 540 960 × 540', '960 540 960 × 540'])
    expect(rectsIn(column(panel('a'), panel('b')), square).panels.map((p) => p.rect.height)).toEqual([540, 540])
  })

  it('keeps words above and below', () => {
    const { areas, panels } = rectsIn(
      column({ kind: 'titleArea' }, panel('a'), panel('b'), { kind: 'captionArea' }),
      wide,
    )
    expect(areas.map(({ kind, rect }) => [kind, rect.width, rect.y])).toEqual([
      ['titleArea', 1920, 0],
      ['captionArea', 1920, 810],
    ])
    expect(panels.map(({ rect }) => rect.width)).toEqual([960, 960])
  })

  it('turns what was turned upright again where it is not tall', () => {
    const turnsOf = (shape: Shape) => rectsIn(column(panel('a', 1)), shape).panels.map((p) => p.panel.turn)
    expect([shapeNamed('tall'), shapeNamed('portrait'), square, wide].map(turnsOf)).toEqual([[1], [1], [0], [0]])
  })

  it('keeps the corner, the distance from it and the share of the area of insets', () => {
    for (const anchor of ['nw', 'ne', 'sw', 'se'] as const) {
      const away = {
        dx: anchor.includes('w') ? 0.04 : -0.04,
        dy: (anchor.includes('n') ? 0.04 : -0.04) * (1080 / 1920),
      }
      const base: Arrangement = { backdrop, tree: panel('g'), insets: [inset(anchor, away)] }
      for (const shape of STANDARD_SHAPES) {
        const rect = rectsIn(base, shape).panels[1]?.rect
        if (!rect) throw new Error('no inset')
        const shorter = Math.min(shape.width, shape.height)
        const gapX = anchor.includes('w') ? rect.x : shape.width - rect.x - rect.width
        const gapY = anchor.includes('n') ? rect.y : shape.height - rect.y - rect.height
        for (const gap of [gapX, gapY]) expect(Math.abs(gap - 0.04 * shorter)).toBeLessThanOrEqual(2)
        expect(areaOf(rect) / areaOf(shape)).toBeCloseTo(((0.4 * 1080) ** 2 * 9) / 16 / areaOf(BASE), 2)
      }
    }
  })

  it('takes what hangs in the middle of an edge along when rows become columns', () => {
    const arrangement: Arrangement = { ...column(panel('a'), panel('b')), insets: [inset('n', { dx: 0, dy: 0.3 })] }
    const rect = rectsIn(arrangement, wide).panels[2]?.rect
    if (!rect) throw new Error('no inset')
    expect(centreOf(rect).y).toBeCloseTo(540, 0)
    expect(rect.x).toBe(576)
  })

  it('is found back from what was done in another shape', () => {
    for (const shape of STANDARD_SHAPES)
      for (const tree of [panel('g'), column(panel('a'), panel('b')).tree])
        for (const anchor of ['nw', 'n', 'e', 'c', 'se'] as const) {
          const known = inset(anchor)
          const [moved] = derive({ backdrop, tree, insets: [known] }, shape).insets
          if (!moved) throw new Error('no inset')
          const back = insetInBase(moved, shape, turnsInto(tree, shape))
          const [wanted, got] = [insetRect(known, BASE), insetRect(back, BASE)]
          for (const side of ['x', 'y', 'width', 'height'] as const)
            expect(Math.abs(wanted[side] - got[side])).toBeLessThanOrEqual(2)
        }
  })
})
