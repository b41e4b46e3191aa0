import { expect, test, type Page } from '@playwright/test'
import { existsSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { STARTING_LAYOUTS } from '../../src/core/layout/startingLayouts'
import { STANDARD_SHAPES } from '../../src/core/model/shape'
import { untilLookedAlong, watchForErrors } from '../support/brimble'
import { ffmpeg, ssim } from '../support/ffmpeg'

/** Frames of the stream that each layout is shown for, and the one of them that is looked at. */
const FRAMES_EACH = 4
const LOOKED_AT = 2
/** Rendered at half the stream's rate. */
const RENDERED_EACH = FRAMES_EACH / 2

/** Pictures come onto the screen a moment after they are drawn. */
const SEEN_WITHIN_MS = 10_000

const GOLDEN = join(import.meta.dirname, '..', 'golden')

/** The demo stream's first highlight on the Bench, in every standard shape. */
async function toDemoBench(page: Page): Promise<void> {
  await page.goto('/')
  await page.getByRole('button', { name: 'Open the demo shelf' }).first().click()
  await page.getByRole('link', { name: /^Last gate, no lift/ }).click()
  await expect(page.getByRole('img', { name: 'Result, tall' })).toBeVisible()
  for (const { id } of STANDARD_SHAPES) {
    const chip = page.getByRole('button', { name: id, exact: true })
    if ((await chip.getAttribute('aria-pressed')) === 'false') await chip.click()
  }
  await page.keyboard.press('3')
}

async function takeLayout(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name: /^Layout: / }).click()
  // The last one to be laid out has the layout to itself by then.
  const alone = page.getByRole('checkbox', { name: 'For this passage alone' })
  if (await alone.isVisible()) await alone.check()
  await page
    .getByRole('group', { name: 'Starting layouts' })
    .getByRole('button', { name, exact: true })
    .click({ timeout: 10_000 })
  await expect(page.getByRole('button', { name: `Layout: ${name}` })).toBeVisible()
}

test('every starting layout in every shape: one action each, the file shows what was seen, and it looks as it did', async ({
  page,
}) => {
  test.setTimeout(600_000)
  const errors = watchForErrors(page)
  await toDemoBench(page)
  await untilLookedAlong(page)
  await page.keyboard.press('Home')
  for (let n = 1; n < STARTING_LAYOUTS.length; n++) {
    for (let i = 0; i < FRAMES_EACH; i++) await page.keyboard.press('ArrowRight')
    await page.keyboard.press('s')
  }
  for (let i = 0; i < FRAMES_EACH; i++) await page.keyboard.press('ArrowRight')
  await page.keyboard.press('o')
  await page.keyboard.press('Home')
  for (const { name } of STARTING_LAYOUTS) {
    await takeLayout(page, name)
    await page.keyboard.press('PageDown')
  }
  // What is written.
  const folder = mkdtempSync(join(tmpdir(), 'brimble-layouts-'))
  await page.getByRole('button', { name: 'Render', exact: true }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('Frame rate').click()
  await page.getByRole('option', { name: '30 fps', exact: true }).click()
  await dialog.getByRole('combobox', { name: 'Quality' }).click()
  await page.getByRole('option', { name: 'High' }).click()
  await dialog.getByRole('button', { name: 'Render 4 files' }).click()
  await expect(page.getByRole('link', { name: '4 files ready' })).toBeVisible({ timeout: 180_000 })
  await page.getByRole('link', { name: 'Outbox' }).click()
  for (const { id: shapeId } of STANDARD_SHAPES) {
    const row = page.locator('article[data-state="finished"]').filter({ hasText: shapeId })
    const download = page.waitForEvent('download')
    await row.getByRole('button', { name: 'Save' }).click()
    const file = join(folder, `${shapeId}.mp4`)
    await (await download).saveAs(file)
    const frames = STARTING_LAYOUTS.map((_, n) => `eq(n,${n * RENDERED_EACH + LOOKED_AT / 2})`).join('+')
    ffmpeg('-i', file, '-vf', `select='${frames}'`, '-fps_mode', 'passthrough', join(folder, `${shapeId}-%02d.png`))
  }
  // What is seen: each layout in one of the shapes, since preview and file draw the same list.
  await page.goBack()
  // In a window so large that previews are not small.
  await page.setViewportSize({ width: 2560, height: 1600 })
  await expect(page.getByRole('img', { name: 'Result, tall' })).toBeVisible()
  await page.keyboard.press('3')
  await page.keyboard.press('h')
  for (const [s, shape] of STANDARD_SHAPES.entries()) {
    await page.getByRole('button', { name: `Enlarge ${shape.id}` }).click()
    const result = page.getByRole('img', { name: `Result, ${shape.id}` })
    await page.keyboard.press('Home')
    for (const [n, { id }] of STARTING_LAYOUTS.entries()) {
      if (n % STANDARD_SHAPES.length !== s) {
        await page.keyboard.press('PageDown')
        continue
      }
      for (let i = 0; i < LOOKED_AT; i++) await page.keyboard.press('ArrowRight')
      await expect
        .poll(async () => likeness(await result.screenshot(), written(folder, shape.id, n)), {
          message: `${id}, ${shape.id}: preview and file alike`,
          timeout: SEEN_WITHIN_MS,
          intervals: [0, 100, 250],
        })
        .toBeGreaterThan(0.98)
      await page.keyboard.press('PageDown')
    }
    await page.getByRole('button', { name: 'Back to all shapes' }).click()
  }
  const worst: string[] = []
  // As it looked when somebody last looked at it.
  STARTING_LAYOUTS.forEach(({ id }, n) => {
    const sheet = join(folder, `${id}.png`)
    const graph = STANDARD_SHAPES.map((_, i) => `[${i}:v]scale=-2:160:flags=area[s${i}]`).join(';')
    ffmpeg(
      ...STANDARD_SHAPES.flatMap((s) => ['-i', written(folder, s.id, n)]),
      '-filter_complex',
      `${graph};${STANDARD_SHAPES.map((_, i) => `[s${i}]`).join('')}hstack=inputs=${STANDARD_SHAPES.length}`,
      '-frames:v',
      '1',
      sheet,
    )
    const golden = join(GOLDEN, `${id}.png`)
    if (process.env.KEEP_GOLDEN || !existsSync(golden)) writeFileSync(golden, readFileSync(sheet))
    else if (ssim(sheet, ['-i', golden], '[1:v]null[ref]') < 0.97) worst.push(id)
  })
  expect(worst, 'as in tests/golden').toEqual([])
  errors.expectNone()
})

/** SSIM of what is on the screen and what was written, at the screen's size. */
function likeness(seen: Buffer, file: string): number {
  const path = file.replace('.png', '-seen.png')
  writeFileSync(path, seen)
  return ssim(path, ['-i', file], `[1:v]scale=${seen.readUInt32BE(16)}:${seen.readUInt32BE(20)}:flags=area[ref]`)
}

const written = (folder: string, shapeId: string, n: number) =>
  join(folder, `${shapeId}-${String(n + 1).padStart(2, '0')}.png`)
