import { expect, test, type Page } from '@playwright/test'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { leanOut, streamPlaces } from '../../demo/script.mjs'
import { setRegion, toBench, watchForErrors } from '../support/brimble'
import { run } from '../support/ffmpeg'

const STREAM = 'public/demo/ridge-cup-stream.mp4'

const face = (page: Page) => page.getByRole('group', { name: /^Face: / })

/** Middle of the Face region on screen, CSS px. */
async function middleOf(page: Page): Promise<{ x: number; y: number }> {
  const box = await face(page).boundingBox()
  if (!box) throw new Error('no region')
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 }
}

async function drag(page: Page, by: { x: number; y: number }, held?: 'Alt' | 'Shift'): Promise<void> {
  const { x, y } = await middleOf(page)
  if (held) await page.keyboard.down(held)
  await page.mouse.move(x, y)
  await page.mouse.down()
  await page.mouse.move(x + by.x, y + by.y, { steps: 5 })
  await page.mouse.up()
  if (held) await page.keyboard.up(held)
}

/** The result in the tall shape as it is on the screen, put through a filter of ffmpeg: its pixels, R, G and B. */
async function pixelsOf(page: Page, filter: string): Promise<number[]> {
  const picture = join(mkdtempSync(join(tmpdir(), 'brimble-colour-')), 'shape.png')
  await page.getByTestId('shape-tall').screenshot({ path: picture })
  return [...run('ffmpeg', ['-v', 'error', '-i', picture, '-vf', filter, '-f', 'rawvideo', '-pix_fmt', 'rgb24', '-'])]
}

/** Its colour at a point given in shares of the shape. */
const colourAt = (page: Page, x: number, y: number) => pixelsOf(page, `crop=1:1:iw*${x}:ih*${y}`)

test('a ribbon shows where the face leaves its box, to half a second, and its time leads there', async ({ page }) => {
  const errors = watchForErrors(page)
  await toBench(page, STREAM, 'ridge-cup-stream')
  await setRegion(page, 'Face', streamPlaces.facecam)
  const going = page.getByRole('status').filter({ hasText: /^checking regions: \d+ of \d+/ })
  await going.getByRole('button', { name: 'Stop' }).click({ timeout: 60_000 })
  await expect(page.getByText('Checking was stopped.')).toBeVisible()
  await page.getByRole('button', { name: 'Check regions' }).click()
  const facts = page.getByRole('note', { name: 'Presence in Face' })
  await expect(facts).toBeVisible({ timeout: 120_000 })
  await expect(facts).toContainText('the face is inside')
  const outside = await page
    .locator('[data-outside]')
    .evaluateAll((all) =>
      all.map((e) => (e as HTMLElement).dataset.outside?.split(' ').map((t) => Number(t) / 1e6) ?? []),
    )
  expect(outside).toHaveLength(1)
  expect(Math.abs((outside[0]?.[0] ?? 0) - leanOut.from)).toBeLessThanOrEqual(0.5)
  expect(Math.abs((outside[0]?.[1] ?? 0) - leanOut.to)).toBeLessThanOrEqual(0.5)
  await facts.getByRole('button', { name: /^0:25/ }).click()
  await expect(page.getByLabel('Player')).toContainText('0:25')
  await facts.getByRole('button', { name: 'Grow to fit' }).click()
  await expect
    .poll(async () => Number(await page.getByLabel('Face width', { exact: true }).inputValue()))
    .toBeGreaterThan(streamPlaces.facecam.width)
  errors.expectNone()
})

test('a region lies differently in one passage, straight when asked, and is put back in one action', async ({
  page,
}) => {
  await toBench(page, STREAM, 'ridge-cup-stream')
  const left = async () => Number(await page.getByLabel('Face left', { exact: true }).inputValue())
  const top = async () => Number(await page.getByLabel('Face top', { exact: true }).inputValue())
  const [x, y] = [await left(), await top()]
  // An arrow key is the region's alone: the playhead stays.
  await face(page).press('Shift+ArrowRight')
  await expect.poll(left).toBe(x + 20)
  await expect(page.getByLabel('Player')).toContainText('0:00.00')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect.poll(left).toBe(x)
  await drag(page, { x: -60, y: -7 }, 'Shift')
  await expect.poll(left).toBeLessThan(x - 100)
  expect(await top()).toBe(y)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect.poll(left).toBe(x)

  // Two passages: what is shifted in the second stays as it was in the first.
  await page.keyboard.press('Shift+ArrowRight')
  await page.keyboard.press('s')
  await page.getByRole('button', { name: 'Split' }).waitFor()
  await page.keyboard.press('Shift+ArrowRight')
  await drag(page, { x: -60, y: -20 }, 'Alt')
  await expect(page.getByRole('group', { name: /^Face: .*in this passage only/ })).toBeVisible()
  expect(await left()).toBeLessThan(x - 100)
  await page.keyboard.press('Home')
  await expect.poll(left).toBe(x)
  await page.keyboard.press('End')
  await expect.poll(left).toBeLessThan(x - 100)
  await page.getByRole('button', { name: 'More about Face' }).click()
  await page.getByRole('button', { name: 'Reset to all passages' }).click()
  await page.keyboard.press('Escape')
  await expect.poll(left).toBe(x)
})

test('form, border and shadow are drawn in the panel; an edge that is dragged is magnified', async ({ page }) => {
  await toBench(page, STREAM, 'ridge-cup-stream')
  await page.getByRole('button', { name: 'Hide outlines' }).click()
  await expect.poll(async () => (await colourAt(page, 0.5, 0.2)).some((v) => v > 40)).toBe(true)
  const corner = await colourAt(page, 0.02, 0.02)
  await page.getByRole('button', { name: 'More about Face' }).click()
  await page.getByRole('combobox', { name: 'Form' }).click()
  await page.getByRole('option', { name: 'ellipse' }).click()
  await page.getByRole('checkbox', { name: 'Border' }).check()
  await page.getByLabel('Border colour').fill('#ff0000')
  await page.keyboard.press('Escape')
  await expect.poll(() => colourAt(page, 0.02, 0.02)).not.toEqual(corner)
  // The upper end of the ellipse is border, red.
  await expect.poll(async () => (await colourAt(page, 0.5, 0.003)).map((v) => v > 128)).toEqual([true, false, false])
  await page.getByRole('button', { name: 'Show outlines' }).click()

  await face(page).focus()
  const grip = await page.locator('[data-role="face"] [data-grip="w"]').boundingBox()
  if (!grip) throw new Error('no grip')
  await page.mouse.move(grip.x + 9, grip.y + 9)
  await page.mouse.down()
  await page.mouse.move(grip.x + 4, grip.y + 9, { steps: 3 })
  await expect(page.getByTestId('magnifier')).toBeVisible()
  await page.mouse.up()
  await expect(page.getByTestId('magnifier')).toHaveCount(0)
})

test('crops follow what moves; a key is set by hand, taken away, and all of it undone', async ({ page }) => {
  test.setTimeout(120_000)
  const errors = watchForErrors(page)
  await toBench(page, 'public/demo/field-winch.mp4', 'field-winch')
  await setRegion(page, 'Game', { x: 0, y: 0, width: 1920, height: 1080 })
  await page.getByRole('button', { name: 'More about Game' }).click()
  await page.getByRole('button', { name: 'Follow in this passage' }).click()
  await expect(page.getByRole('button', { name: 'Stop following in this passage' })).toBeVisible({ timeout: 60_000 })
  await page.keyboard.press('Escape')
  const keys = page.getByRole('button', { name: /^Key at / })
  const found = await keys.count()
  expect(found).toBeGreaterThan(0)
  await page.keyboard.press('Home')
  for (let n = 0; n < 3; n++) await page.keyboard.press('Shift+ArrowRight')
  await expect(page.getByLabel('Player')).toContainText('0:03')
  const aim = page.getByRole('group', { name: 'Aim point of Game' })
  await aim.focus()
  await aim.press('Shift+ArrowRight')
  await aim.press('Shift+ArrowRight')
  await expect(keys).toHaveCount(found + 1)
  await page.getByRole('button', { name: /^Key at 0:0(3.0|2.9)/ }).press('Delete')
  await expect(keys).toHaveCount(found)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(keys).toHaveCount(found + 1)
  await page.getByRole('button', { name: 'More about Game' }).click()
  await page.getByRole('button', { name: 'Stop following in this passage' }).click()
  await expect(keys).toHaveCount(0)
  errors.expectNone()
})

test('a focus is set, moved by mouse and keyboard, steers the crop, goes along with its region, and is undone', async ({
  page,
}) => {
  await toBench(page, STREAM, 'ridge-cup-stream')
  await setRegion(page, 'Game', { x: 0, y: 0, width: 1920, height: 1080 })
  await page.getByRole('button', { name: 'More about Game' }).click()
  await page.getByRole('checkbox', { name: 'Focus' }).check()
  await page.keyboard.press('Escape')
  const focus = page.getByRole('group', { name: 'Focus of Game' })
  const placeOf = async () => {
    const [frame, box] = [await page.getByTestId('frame-picture').boundingBox(), await focus.boundingBox()]
    if (!frame || !box) throw new Error('no focus')
    return Math.round(((box.x - frame.x) / frame.width) * 1920)
  }
  expect(Math.abs((await placeOf()) - 480)).toBeLessThanOrEqual(3)
  await page.getByRole('button', { name: 'Hide outlines' }).click()
  const before = await pixelsOf(page, 'scale=8:8:flags=area')
  await page.getByRole('button', { name: 'Show outlines' }).click()
  const box = await focus.boundingBox()
  if (!box) throw new Error('no focus')
  await page.mouse.move(box.x + 30, box.y + 30)
  await page.mouse.down()
  await page.mouse.move(box.x + 30 - 100, box.y + 30, { steps: 5 })
  await page.mouse.up()
  const dragged = await placeOf()
  expect(dragged).toBeLessThan(300)
  await page.getByRole('button', { name: 'Hide outlines' }).click()
  await expect.poll(() => pixelsOf(page, 'scale=8:8:flags=area')).not.toEqual(before)
  await page.getByRole('button', { name: 'Show outlines' }).click()
  await focus.press('Shift+ArrowRight')
  await expect.poll(async () => Math.abs((await placeOf()) - dragged - 20)).toBeLessThanOrEqual(3)
  await expect(page.getByLabel('Player')).toContainText('0:00.00')
  await page.getByRole('button', { name: 'Undo' }).click()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect.poll(async () => Math.abs((await placeOf()) - 480)).toBeLessThanOrEqual(3)
})
