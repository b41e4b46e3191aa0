import { chromium, expect, test, type Page } from '@playwright/test'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { basename, join } from 'node:path'
import type { InsetId, LayoutId, MarkId, PanelId, PassageId, TitleId } from '@/core/model/ids'
import { arrangeFor, STARTING_LAYOUTS } from '@/core/layout/startingLayouts'
import type { Highlight } from '@/core/model/highlight'
import type { Join } from '@/core/model/join'
import { newLayout } from '@/core/model/layout'
import { newMark } from '@/core/model/pictureMark'
import { newRecord } from '@/core/model/record'
import { CAPTION_STYLES, TITLE_STYLES } from '@/core/words/textStyles'
import { NO_WORDS } from '@/core/model/words'
import { NO_GPU_ARGS } from '../../scripts/chromium.mjs'
import { storeCopies, storedHighlight, toDemoBench, watchForErrors } from '../support/brimble'
import { run } from '../support/ffmpeg'
import { inDatabase } from '../support/inDatabase.mjs'

/** One passage for each starting layout, at another place of the stream. */
const EACH_MICROS = 400_000
/** One or two frames of a join, four of a layout: what is drawn is in some of them, and all of it is drawn in time. */
const RATE = 10
const JOIN_MICROS = 150_000
const FRAMES = (STARTING_LAYOUTS.length * EACH_MICROS * RATE) / 1_000_000
const JOINS: Join[] = [
  { kind: 'cut' },
  { kind: 'dissolve', lengthMicros: JOIN_MICROS, easing: 'even' },
  { kind: 'push', direction: 'left', lengthMicros: JOIN_MICROS, easing: 'soft', within: 'panel' },
  { kind: 'slide', direction: 'up', lengthMicros: JOIN_MICROS, easing: 'even' },
  { kind: 'dip', colour: '#203010', lengthMicros: JOIN_MICROS, easing: 'even' },
]

/** So that what is compared is what was drawn, not what an encoder made of it. */
const NEARLY_LOSSLESS = 40_000_000

const SHAPES = [
  { id: 'tall', width: 540, height: 960 },
  { id: 'slim', width: 334, height: 626 },
]
const SMALLER = SHAPES.slice(1)

/** Stores a highlight that has every starting layout, every style of words, every mark and every join. */
async function storeEverything(page: Page): Promise<void> {
  const model = await storedHighlight<Highlight>(page, 'demo-last-gate')
  const [first] = model.passages
  if (!first) throw new Error('no passage')
  const base = { ...newRecord('2026-11-26T12:00:00.000Z'), ownedBy: 'everything' as Highlight['id'] }
  let ids = 0
  const layouts = STARTING_LAYOUTS.map((starting, n) =>
    newLayout({
      ...base,
      id: `layout-${n}` as LayoutId,
      name: starting.name,
      arrangement: arrangeFor(
        starting,
        ['face', 'game', 'hud'],
        () => `panel-${ids++}` as PanelId,
        () => `inset-${ids++}` as InsetId,
      ),
    }),
  )
  const passages = layouts.map(({ id }, n) => ({
    ...first,
    id: `p-${n}` as PassageId,
    layoutId: id,
    inMicros: 8_000_000 + n * 650_001,
    outMicros: 8_000_000 + n * 650_001 + EACH_MICROS,
    strikes: [],
    join: JOINS[n % JOINS.length],
  }))
  const styles = [...CAPTION_STYLES, ...TITLE_STYLES]
  const titles = styles.map(({ style }, n) => ({
    id: `t-${n}` as TitleId,
    text: `Last gate ${n}, no lift`,
    style,
    fromMicros: Math.floor((n * layouts.length * EACH_MICROS) / styles.length),
    toMicros: Math.floor(((n + 1) * layouts.length * EACH_MICROS) / styles.length),
  }))
  const marks = (['handle', 'level', 'countdown', 'progress', 'endCard'] as const).map((kind) =>
    newMark(`m-${kind}` as MarkId, { kind }),
  )
  const highlight = {
    ...model,
    id: 'everything',
    name: 'Everything',
    passages,
    shapes: SHAPES,
    words: { ...NO_WORDS, titles },
    marks: marks.map((m) => (m.kind === 'handle' || m.kind === 'endCard' ? { ...m, text: 'heron ridge' } : m)),
    output: { ...model.output, frameRate: { num: RATE, den: 1 }, videoBitrate: NEARLY_LOSSLESS },
  }
  await inDatabase(
    page,
    async (db, done, { highlight, layouts }) => {
      const tx = db.transaction(['highlights', 'layouts'], 'readwrite')
      for (const layout of layouts) tx.objectStore('layouts').put(layout)
      tx.objectStore('highlights').put(highlight)
      await done(tx)
    },
    { highlight, layouts },
  )
}

/** The first passage of it, a picture or two long. */
async function firstOf(page: Page): Promise<object> {
  const [first] = (await storedHighlight<Highlight>(page, 'everything')).passages
  if (!first) throw new Error('no passage')
  return { ...first, outMicros: first.inMicros + 200_000, join: { kind: 'cut' } }
}

/** Puts all shapes of a highlight into the Outbox; the page stays there. */
async function render(page: Page, name = 'Everything'): Promise<void> {
  await page.getByRole('link', { name: 'Contact sheet' }).click()
  await page.getByRole('checkbox', { name: `Choose ${name}`, exact: true }).check()
  await page.getByRole('button', { name: 'Render all shapes of 1' }).click()
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Render \d files?$/ })
    .click()
  await page.getByRole('link', { name: 'Files', exact: true }).click()
}

/** Renders a highlight with one back end; where the files of these shapes were saved. */
async function renderWith(
  page: Page,
  backEnd: RegExp,
  folder: string,
  shapes: readonly { id: string }[] = SHAPES,
  name = 'Everything',
): Promise<string[]> {
  await page.getByRole('button', { name: 'Settings…' }).click()
  await page.getByLabel('Drawing engine').click()
  await page.getByRole('option', { name: backEnd }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Close' }).click()
  await render(page, name)
  await expect(page.locator('article[data-state=waiting], article[data-state=running]')).toHaveCount(0, {
    timeout: 240_000,
  })
  await expect(page.locator('article[data-state=failed]')).toHaveCount(0)
  const paths: string[] = []
  for (const { id } of shapes) {
    const download = page.waitForEvent('download')
    await page
      .getByRole('article', { name: `${name}, ${id}`, exact: true })
      .first()
      .getByRole('button', { name: 'Save' })
      .click()
    const path = join(mkdtempSync(join(folder, 'by-')), `${id}.mp4`)
    await (await download).saveAs(path)
    paths.push(path)
  }
  return paths
}

test('the kernel, the GPU and the canvas draw the same pictures: every layout, style of words, mark and join, in odd sizes from odd crops', async ({
  page,
}) => {
  test.setTimeout(600_000)
  const errors = watchForErrors(page)
  await toDemoBench(page)
  await storeEverything(page)
  const folder = mkdtempSync(join(tmpdir(), 'brimble-back-ends-'))
  // Something has to be in the Outbox for its settings to be there; and with it the back ends have been measured.
  await storeCopies(page, 'everything', [
    { id: 'brief', name: 'Brief', passages: [await firstOf(page)] },
    { id: 'slim', name: 'Everything slim', shapes: SMALLER },
  ])
  await page.getByRole('link', { name: 'Outbox' }).click()
  await render(page, 'Brief')
  await expect(page.locator('article[data-state=finished]')).toHaveCount(SHAPES.length, { timeout: 120_000 })
  const canvas = await renderWith(page, /browser’s canvas/, folder)
  const others = [
    ...(await renderWith(page, /the kernel/, folder)),
    // A processor that does a GPU's work takes a second for a picture: in the smaller shape alone.
    ...(await renderWith(page, /^the GPU/, folder, SMALLER, 'Everything slim')),
  ]
  await page.getByRole('button', { name: 'Settings…' }).click()
  await expect(page.getByRole('dialog')).toContainText(
    /Measured here: the canvas [\d.]+ ms a picture, the kernel [\d.]+ ms, no GPU/,
  )
  for (const file of others) {
    const stats = run('ffmpeg', [
      '-v',
      'error',
      '-i',
      file,
      '-i',
      canvas.find((other) => basename(other) === basename(file)) ?? '',
      '-lavfi',
      'ssim=stats_file=-',
      '-f',
      'null',
      '-',
    ]).toString()
    const frames = [...stats.matchAll(/All:([\d.]+)/g)].map((m) => Number(m[1]))
    expect(frames).toHaveLength(FRAMES)
    const worst = frames
      .map((v, n) => ({ v, n }))
      .sort((a, b) => a.v - b.v)
      .slice(0, 5)
    expect(worst[0]?.v, `${file}: ${worst.map(({ v, n }) => `frame ${n} ${v}`).join(', ')}`).toBeGreaterThan(0.99)
  }
  errors.expectNone()
})

test('a GPU that is lost in mid-render costs nothing: the canvas goes on', async ({ baseURL }) => {
  test.setTimeout(200_000)
  // A browser of its own, whose processes can be told from those of others.
  const server = await chromium.launchServer({ executablePath: '/usr/bin/chromium', args: NO_GPU_ARGS })
  try {
    const browser = await chromium.connect(server.wsEndpoint())
    const page = await browser.newPage({ baseURL: baseURL ?? '', viewport: { width: 1280, height: 800 } })
    await toDemoBench(page)
    await storeEverything(page)
    await inDatabase(page, (db, done) =>
      done(
        db
          .transaction('settings', 'readwrite')
          .objectStore('settings')
          .put({ key: 'outbox', value: { backEnd: 'gpu' } }),
      ),
    )
    await page.getByRole('link', { name: 'Outbox' }).click()
    await render(page)
    await expect(page.getByRole('progressbar').first()).toHaveAttribute('aria-valuenow', /^[1-9]/, { timeout: 60_000 })
    const gpu = descendants(server.process().pid ?? 0).find(({ command }) => command.includes('--type=gpu-process'))
    if (!gpu) throw new Error('no GPU process')
    process.kill(gpu.pid, 'SIGKILL')
    await expect(page.locator('article[data-state=finished]')).toHaveCount(SHAPES.length, { timeout: 120_000 })
    const download = page.waitForEvent('download')
    await page
      .getByRole('article', { name: 'Everything, tall', exact: true })
      .getByRole('button', { name: 'Save' })
      .click()
    const path = join(mkdtempSync(join(tmpdir(), 'brimble-gpu-lost-')), 'tall.mp4')
    await (await download).saveAs(path)
    // No picture is missing, and none is black: words and footage are in every one.
    const stats = run('ffmpeg', [
      '-v',
      'error',
      '-i',
      path,
      '-vf',
      'signalstats,metadata=print:key=lavfi.signalstats.YMAX:file=-',
      '-f',
      'null',
      '-',
    ]).toString()
    const brightest = [...stats.matchAll(/YMAX=(\d+)/g)].map((m) => Number(m[1]))
    expect(brightest).toHaveLength(FRAMES)
    expect(Math.min(...brightest)).toBeGreaterThan(150)
  } finally {
    await server.close()
  }
})

/** Every process that another has begun, and those that they have. */
function descendants(pid: number): { pid: number; command: string }[] {
  const all = run('ps', ['-eo', 'pid=,ppid=,args='])
    .toString()
    .trim()
    .split('\n')
    .map((line) => /^\s*(\d+)\s+(\d+)\s+(.*)$/.exec(line))
    .flatMap((m) => (m ? [{ pid: Number(m[1]), parent: Number(m[2]), command: m[3] ?? '' }] : []))
  const below = (parent: number): { pid: number; command: string }[] =>
    all.filter((p) => p.parent === parent).flatMap((p) => [p, ...below(p.pid)])
  return below(pid)
}
