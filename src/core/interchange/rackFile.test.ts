import { describe, expect, it } from 'vitest'
import { arrangeFor, STARTING_LAYOUTS } from '../layout/startingLayouts'
import type { Brand } from '../model/brand'
import type {
  BrandId,
  ImageFileId,
  InsetId,
  LayoutId,
  MarkId,
  PanelId,
  RecipeId,
  RegionId,
  SetupId,
} from '../model/ids'
import { newLayout, type Layout } from '../model/layout'
import { newMark } from '../model/pictureMark'
import { USUAL_OUTPUT } from '../model/outputChoice'
import { startingOutlets } from '../model/outlet'
import { newRecord } from '../model/record'
import { newRegion } from '../model/region'
import { newSetup, type Setup } from '../model/setup'
import { NO_WORDS } from '../model/words'
import { STANDARD_SHAPES } from '../model/shape'
import { freeName } from './freeName'
import { mergeRack } from './mergeRack'
import { MAX_RACK_FILE_BYTES, NOTHING_FILED, readRackFile, writeRackFile, type Filed } from './rackFile'

const NOW = '2026-11-25T10:00:00.000Z'
const setup = (id: string, name: string, x = 0.5): Setup =>
  newSetup({
    ...newRecord(NOW),
    id: id as SetupId,
    name,
    regions: [newRegion('r' as RegionId, 'face', 'Wren', { x, y: 0.5, width: 0.25, height: 0.25 })],
    ownedBy: null,
    tags: ['soaring'],
  })
const layout = (id: string, name: string, which = 0): Layout => {
  const starting = STARTING_LAYOUTS[which]
  if (!starting) throw new Error('no such layout')
  return newLayout({
    ...newRecord(NOW),
    id: id as LayoutId,
    name,
    ownedBy: null,
    arrangement: arrangeFor(
      starting,
      ['face', 'game'],
      (role, n) => `${role}${n}` as PanelId,
      () => 'i' as InsetId,
    ),
  })
}
const brand: Brand = {
  ...newRecord(NOW),
  id: 'b' as BrandId,
  name: 'Heron Ridge',
  tags: [],
  palette: { ground: '#20261f', ink: '#f4f2ec', accent: '#2e5e3e' },
  fonts: { title: 'Instrument Sans', captions: 'Instrument Sans' },
  logo: 'pic' as ImageFileId,
  endCard: null,
  handle: 'heron ridge',
}
const filed = (records: Partial<Filed['records']>, bytes: Filed['bytes'] = {}): Filed => ({
  records: { ...NOTHING_FILED.records, ...records },
  bytes,
})
const picture = {
  ...newRecord(NOW),
  id: 'pic' as ImageFileId,
  name: 'Badge',
  fileName: 'badge.png',
  sizeBytes: 3,
  width: 1,
  height: 1,
}

let ids = 0
const newId = () => `new ${++ids}`
const file = (lists: object) => JSON.stringify({ brimble: 'rack', version: 1, ...lists })

function read(text: string) {
  const result = readRackFile(text)
  if (!result.ok) throw new Error(result.reason)
  return result
}

describe('files of a rack', () => {
  it('give back what was written: setups, every starting layout, a brand with its picture, outlets, a recipe', () => {
    const all = filed(
      {
        setup: [setup('a', 'Evening stream'), setup('c', 'Club <b>call</b>', 0.1)],
        layout: STARTING_LAYOUTS.map((s, n) => layout(`l${n}`, s.name, n)),
        brand: [brand],
        imageFile: [picture],
        outlet: startingOutlets(NOW),
        recipe: [
          {
            ...newRecord(NOW),
            id: 'k' as RecipeId,
            name: 'Evening',
            tags: [],
            setupId: 'a' as SetupId,
            layoutId: 'l0' as LayoutId,
            brandId: brand.id,
            shapes: STANDARD_SHAPES.slice(0, 2),
            captions: NO_WORDS.captions,
            marks: [newMark('m' as MarkId, { kind: 'picture', imageFileId: picture.id })],
            output: { ...USUAL_OUTPUT, captions: 'both' },
            byItself: true,
          },
        ],
      },
      { pic: { type: 'image/png', base64: 'AAAA' } },
    )
    expect(read(writeRackFile(all))).toEqual({ ok: true, filed: all, remarks: [] })
  })

  it('of the older kind, with setups alone, are read too', () => {
    expect(
      read(JSON.stringify({ brimble: 'setups', version: 1, setups: [setup('a', 'Evening')] })).filed.records.setup,
    ).toEqual([setup('a', 'Evening')])
  })

  it('never carry whose working copy something was', () => {
    const owned = { ...setup('a', 'Evening'), ownedBy: 'h' as Setup['ownedBy'], basedOn: 'x' as SetupId }
    expect(read(writeRackFile(filed({ setup: [owned] }))).filed.records.setup[0]).toMatchObject({
      ownedBy: null,
      basedOn: null,
    })
  })

  it.each([
    ['not JSON', '{', 'not-json'],
    ['another file', '{"a":1}', 'not-a-rack'],
    ['empty', file({}), 'not-a-rack'],
    ['a list without end', file({ setups: Array.from({ length: 501 }, () => 0) }), 'not-a-rack'],
    ['too much', ' '.repeat(MAX_RACK_FILE_BYTES + 1), 'too-large'],
  ])('are refused when they are %s', (_, text, reason) => {
    expect(readRackFile(text)).toEqual({ ok: false, reason, detail: '' })
  })

  it('tell what is wrong with one record and give the others', () => {
    const good = setup('a', 'Evening')
    const outside = {
      ...setup('b', 'Wild'),
      regions: [{ ...good.regions[0], bounds: { x: 0.9, y: 0, width: 0.5, height: 1 } }],
    }
    const newer = { ...setup('c', 'Later'), schemaVersion: 99 }
    const markup = {
      ...layout('m', 'Markup'),
      arrangement: { tree: { kind: 'script', src: 'x' }, backdrop: { kind: 'colour', colour: 'red' } },
    }
    const { filed: got, remarks } = read(file({ setups: [outside, good, newer, 7], layouts: [markup] }))
    expect(got.records.setup).toEqual([good])
    expect(got.records.layout).toEqual([])
    expect(remarks.map((r) => [r.kind, r.name, r.what])).toEqual([
      ['setup', 'Wild', 'refused'],
      ['setup', 'Later', 'refused'],
      ['setup', 'number 4', 'refused'],
      ['layout', 'Markup', 'refused'],
    ])
    expect(remarks[0]?.reasons[0]).toContain('regions.0.bounds')
  })

  it('put numbers that are out of range right, replace fonts that are missing, and tell of roles that nobody knows', () => {
    const wild = layout(
      'w',
      'Wild',
      STARTING_LAYOUTS.findIndex((s) => s.id === 'porthole'),
    )
    const [inset] = wild.arrangement.insets
    if (!inset) throw new Error('no inset')
    Object.assign(inset, { width: 9, dx: -77 })
    Object.assign(inset.panel, { zoom: 0.2, role: 'wing camera' })
    const { filed: got, remarks } = read(
      file({
        layouts: [wild],
        brands: [{ ...brand, logo: null, fonts: { title: 'Gliding Script', captions: 'Instrument Sans' } }],
      }),
    )
    expect(got.records.layout[0]?.arrangement.insets[0]).toMatchObject({
      width: 1,
      dx: -1,
      panel: { zoom: 1, role: 'wing camera' },
    })
    expect(got.records.brand[0]?.fonts.title).toBe('Instrument Sans')
    expect(remarks.find((r) => r.kind === 'layout' && r.what === 'repaired')?.reasons).toEqual(
      expect.arrayContaining([
        'arrangement.insets.0.width: 9 became 1',
        'arrangement.insets.0.dx: -77 became -1',
        'arrangement.insets.0.panel.zoom: 0.2 became 1',
      ]),
    )
    expect(remarks.find((r) => r.kind === 'brand')?.reasons[0]).toContain('Gliding Script')
    expect(remarks.find((r) => r.what === 'note')?.reasons[0]).toContain('wing camera')
  })

  it('come in beside what is there: the same once, others under a name and an id of their own, and what refers to them follows', () => {
    const there = {
      ...NOTHING_FILED.records,
      setup: [setup('a', 'Evening'), setup('b', 'Morning')],
      layout: [layout('l', 'Bands')],
    }
    const recipe = {
      ...newRecord(NOW),
      id: 'k' as RecipeId,
      name: 'Evening',
      tags: [],
      setupId: 'a' as SetupId,
      layoutId: 'l' as LayoutId,
      brandId: null,
      shapes: STANDARD_SHAPES.slice(0, 1),
      captions: null,
      marks: null,
      output: null,
      byItself: false,
    }
    const merge = mergeRack(
      there,
      filed({
        setup: [setup('b', 'Morning'), setup('a', 'Evening', 0.2), setup('z', 'Evening', 0.3), setup('q', 'Noon')],
        layout: [layout('l', 'Bands')],
        recipe: [recipe],
      }),
      newId,
    )
    expect(merge.same).toEqual(['Morning', 'Bands'])
    expect(merge.add.records.setup.map((s) => s.name)).toEqual(['Evening (2)', 'Evening (3)', 'Noon'])
    expect(new Set([...there.setup, ...merge.add.records.setup].map((s) => s.id)).size).toBe(5)
    expect(merge.add.records.recipe[0]).toMatchObject({ setupId: merge.add.records.setup[0]?.id, layoutId: 'l' })
  })

  it('find a free name', () => {
    expect(freeName('Face', ['Game'])).toBe('Face')
    expect(freeName('Face (2)', ['Face', 'Face (2)'])).toBe('Face (3)')
  })
})
