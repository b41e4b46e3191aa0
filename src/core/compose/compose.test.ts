import { describe, expect, it } from 'vitest'
import { SEED, seeded } from '../../../tests/support/seeded'
import { sampleEdit } from '../../../tests/support/edits'
import { contains } from '../geometry/rect'
import { panel as panelSchema, type Panel } from '../model/panel'
import { region as regionSchema } from '../model/region'
import { STANDARD_SHAPES, type Shape } from '../model/shape'
import type { Edit } from '../model/edit'
import { timeMapOf } from '../time/timeMap'
import { compose, composePassageAt } from './compose'
import { placePanels } from './placePanels'
import { blowUp, panelPicture } from './panelCrop'

const tall = STANDARD_SHAPES[0] as Shape
const composeAt = (edit: Edit, shape: Shape, t: number) => compose(edit, timeMapOf(edit.highlight), shape, t)

describe('composition', () => {
  it('of two bands is the backdrop and two pictures, in pixels of recording and canvas', () => {
    const composition = composeAt(sampleEdit(), tall, 1_500_000)
    expect(composition?.size).toEqual({ width: 1080, height: 1920 })
    expect(composition?.steps[0]).toMatchObject({ kind: 'colour' })
    expect(composition?.steps[1]).toMatchObject({
      kind: 'picture',
      panelId: 'top',
      feed: { recordingId: 'r', micros: 13_500_000 },
      dest: { x: 0, y: 0, width: 1080, height: 608 },
    })
    expect(composition?.steps[2]).toMatchObject({
      kind: 'picture',
      panelId: 'low',
      dest: { x: 0, y: 608, width: 1080, height: 1312 },
    })
    const face = composition?.steps[1]
    if (face?.kind !== 'picture') throw new Error('no face')
    expect(face.crop.height).toBe(270)
    expect(face.crop.width).toBeCloseTo((270 * 1080) / 608, 9)
    expect(JSON.parse(JSON.stringify(composition)), 'plain data').toEqual(composition)
  })

  it('ends with the highlight, but a passage can be looked at beyond its cuts', () => {
    const edit = sampleEdit()
    expect(composeAt(edit, tall, 10_000_000)).toBeNull()
    const [passage] = edit.highlight.passages
    if (!passage) throw new Error('no passage')
    expect(composePassageAt(edit, timeMapOf(edit.highlight), tall, passage, 30_000_000).steps).toHaveLength(3)
  })

  it('leaves a panel out whose role the setup lacks, and says so', () => {
    const edit = sampleEdit()
    edit.setups[0]?.regions.pop()
    expect(composeAt(edit, tall, 0)?.steps).toHaveLength(2)
    const [passage] = edit.highlight.passages
    if (!passage) throw new Error('no passage')
    expect(placePanels(edit, tall, passage).map((p) => p.region?.role ?? null)).toEqual(['face', null])
  })

  it('stands side by side in a wide shape, with nothing off the canvas', () => {
    for (const shape of STANDARD_SHAPES) {
      const pictures = composeAt(sampleEdit(), shape, 0)?.steps.filter((s) => s.kind === 'picture') ?? []
      expect(pictures).toHaveLength(2)
      for (const { dest } of pictures) expect(contains({ x: 0, y: 0, ...shape }, dest)).toBe(true)
      if (shape.id === 'wide') expect(pictures.map((p) => p.dest.y)).toEqual([0, 0])
    }
  })

  it('asks for records it lacks by name', () => {
    expect(() => composeAt({ ...sampleEdit(), recordings: [] }, tall, 0)).toThrow(/recordings: nothing with the id r/)
  })
})

describe('panel pictures', () => {
  const frame = { width: 1920, height: 1080 }

  it(`fill exactly, or show all, and never stretch by half a pixel (seed ${SEED})`, () => {
    const random = seeded(SEED)
    for (let i = 0; i < 2000; i++) {
      const x = random.between(0, 0.8)
      const y = random.between(0, 0.8)
      const region = regionSchema.parse({
        id: 'r',
        role: 'game',
        name: 'Game',
        bounds: { x, y, width: random.between(0.02, 1 - x), height: random.between(0.02, 1 - y) },
      })
      const panel: Panel = panelSchema.parse({
        kind: 'panel',
        id: 'p',
        role: 'game',
        fit: random.pick(['fill', 'whole']),
        zoom: random.between(1, 4),
        turn: random.pick([0, 0, 1, 2, 3]),
        flip: random.next() < 0.3,
      })
      const rect = { x: 0, y: 0, width: 2 * random.integer(16, 1000), height: 2 * random.integer(16, 1900) }
      const correction =
        random.next() < 0.5
          ? { panelId: panel.id, dx: random.between(-1, 1), dy: random.between(-1, 1), zoom: random.between(1, 3) }
          : undefined
      const picture = panelPicture(panel, rect, region, frame, { ...(correction && { correction }) })
      const bounds = {
        x: region.bounds.x * 1920,
        y: region.bounds.y * 1080,
        width: region.bounds.width * 1920,
        height: region.bounds.height * 1080,
      }
      expect(contains(bounds, picture.crop, 1.001), 'inside its region, to the even pixel').toBe(true)
      expect(contains(rect, picture.dest)).toBe(true)
      const { width, height } =
        panel.turn % 2 === 0 ? picture.dest : { width: picture.dest.height, height: picture.dest.width }
      const stretched = Math.abs((picture.crop.width * height) / picture.crop.height - width)
      expect(stretched).toBeLessThan(0.5)
      if (panel.fit === 'fill') expect(picture.dest).toEqual(rect)
    }
  })

  it('tell how far they are blown up', () => {
    expect(
      blowUp({ crop: { x: 0, y: 0, width: 480, height: 270 }, dest: { x: 0, y: 0, width: 1080, height: 608 } }),
    ).toBe(2.25)
  })
})
