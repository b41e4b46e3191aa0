import { expect, it } from 'vitest'
import { sampleEdit } from '../../../tests/support/edits'
import { SEED, seeded } from '../../../tests/support/seeded'
import type { BatchId, RenderId } from '../model/ids'
import { newRecord } from '../model/record'
import { finishedFile, renderSettings, type Render, type RenderSettings } from '../model/render'
import { STANDARD_SHAPES } from '../model/shape'
import { estimate } from './estimate'
import { fileSafe, freeFileName, nameBy, unknownParts } from './fileName'
import { MAX_AT_ONCE, nextGroup } from './renderGroups'
import { renderSize } from './renderSize'

const [tall] = STANDARD_SHAPES
if (!tall) throw new Error('no shapes')

function renderOf(
  id: string,
  batch: string | null,
  change: Partial<RenderSettings> = {},
  shape = tall as (typeof STANDARD_SHAPES)[number],
): Render {
  const edit = sampleEdit()
  const settings = renderSettings.parse({
    frameRate: { num: 30, den: 1 },
    videoBitrate: 8_000_000,
    audioBitrate: 160_000,
    ...change,
  })
  return {
    ...newRecord('2026-11-24T19:30:00Z'),
    id: id as RenderId,
    highlightId: edit.highlight.id,
    shape,
    batchId: batch as BatchId | null,
    order: 0,
    interruptions: 0,
    outletName: null,
    settings,
    edit,
    state: { kind: 'waiting' },
  }
}

const finished = (render: Render, tookMs: number, sizeBytes: number, frames = 300): Render => ({
  ...render,
  state: {
    kind: 'finished',
    file: finishedFile.parse({
      fileName: 'a.mp4',
      sizeBytes,
      container: 'mp4',
      videoCodec: 'avc',
      audioCodec: 'aac',
      frames,
      tookMs,
    }),
  },
})

it('files that show the same moments and sound alike are made in one go, others by themselves', () => {
  const idsOf = (...waiting: Render[]) => nextGroup(waiting).map((r) => r.id)
  const [a, b] = [renderOf('a', 'one'), renderOf('b', 'one')]
  expect(idsOf()).toEqual([])
  expect(idsOf(a, renderOf('x', 'two'), b)).toEqual(['a', 'b'])
  expect(idsOf(a, renderOf('b', 'one', { frameRate: { num: 60, den: 2 } }))).toEqual(['a', 'b'])
  for (const change of [
    { frameRate: { num: 25, den: 1 } },
    { captions: 'beside' },
    { loudness: -14 },
  ] satisfies Partial<RenderSettings>[])
    expect(idsOf(a, renderOf('b', 'one', change))).toEqual(['a'])
  expect(idsOf(renderOf('a', null), renderOf('b', null))).toEqual(['a'])
  expect(idsOf(...Array.from({ length: 9 }, (_, n) => renderOf(`${n}`, 'one')))).toHaveLength(MAX_AT_ONCE)
})

it('what a file comes to is told from the latest ones made here: by frames and their size, and by the bytes they really took', () => {
  const wanted = renderOf('w', null)
  expect(estimate(wanted, 10, [])).toEqual({ bytes: 10_200_000, seconds: null })
  const past = [
    finished(wanted, 12_000, 5_100_000),
    finished(renderOf('s', null, { size: { width: 540, height: 960 } }), 3_000, 5_100_000),
  ]
  const known = estimate(wanted, 20, past)
  expect(known.bytes).toBe(10_200_000)
  expect(known.seconds).toBeCloseTo(24, 6)
  expect(estimate(renderOf('v', null, { coding: 'webm-vp9' }), 20, past).seconds).toBeNull()
})

it(`names keep to their pattern, hold nothing a file system takes amiss, and are never alike (seed ${SEED})`, () => {
  const named = (name: string) => {
    const render = renderOf('r', null)
    return { ...render, edit: { ...render.edit, highlight: { ...render.edit.highlight, name } } }
  }
  expect(nameBy('{date} {highlight} {shape} v{version}', named('Last gate / no lift?'), 3, '2026-11-24')).toBe(
    '2026-11-24 Last gate no lift tall v3',
  )
  expect(nameBy('{outlet} {highlight}', named('..'), 1, '2026-11-24')).toBe('untitled')
  expect(nameBy('{highlight}{nothing}', named('A'), 1, '2026-11-24')).toBe('A{nothing}')
  expect(unknownParts('{highlight} {nothing} {version}')).toEqual(['nothing'])
  expect(fileSafe('CON')).toBe('CON file')
  expect(fileSafe('a\u202egpj.exe')).toBe('a gpj.exe')
  const random = seeded(SEED)
  const letters = ['a', 'Ü', '/', '\\', '.', ' ', ':', '\u0000', '滑', '🪂', '<', '|', '*']
  const taken = new Set<string>()
  for (let n = 0; n < 500; n++) {
    const stem = fileSafe(Array.from({ length: random.integer(0, 120) }, () => random.pick(letters)).join(''))
    const name = freeFileName(stem, 'mp4', taken)
    expect(name).not.toMatch(/[/\\:*?"<>|\u0000]|^\.|^ /)
    expect(new TextEncoder().encode(name).length).toBeLessThanOrEqual(255)
    expect(taken.has(name.toLowerCase())).toBe(false)
    taken.add(name.toLowerCase())
  }
})

it('a file’s picture is scaled down, never up, to even sides; as large as it is sharp where that is asked for', () => {
  const edit = sampleEdit()
  expect(renderSize(edit, tall, 'shape')).toEqual({ width: 1080, height: 1920 })
  expect(renderSize(edit, tall, '720')).toEqual({ width: 720, height: 1280 })
  expect(renderSize(edit, { id: 'own', width: 540, height: 626 }, '1080')).toEqual({ width: 540, height: 626 })
  const sharp = renderSize(edit, tall, 'sharp')
  expect(sharp.width).toBeLessThanOrEqual(1080)
  expect([sharp.width % 2, sharp.height % 2]).toEqual([0, 0])
})
