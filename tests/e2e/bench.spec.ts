import { expect, test, type Page } from '@playwright/test'
import { readFileSync, writeFileSync } from 'node:fs'
import {
  renderAndSave,
  setRegion,
  steadyPicture,
  toBench,
  untilKept,
  untilSteady,
  watchForErrors,
} from '../support/brimble'
import { run, ssim } from '../support/ffmpeg'
import { made } from '../support/makeRecordings'

const bounds = (page: Page, region: string) =>
  page.getByRole('group', { name: new RegExp(`^${region}: `) }).getAttribute('aria-label')

test('what is seen is what is written: preview and file show the same picture', async ({ page }) => {
  // A large window, so that the preview is not so small that the two ways of making it smaller are what is compared.
  await page.setViewportSize({ width: 1920, height: 2000 })
  await toBench(page, made('pattern.mp4'), 'pattern')
  await setRegion(page, 'Face', { x: 1340, y: 752, width: 540, height: 304 })
  await setRegion(page, 'Game', { x: 430, y: 30, width: 900, height: 1020 })
  // Form, border and shadow are drawn alike too.
  await page.getByRole('button', { name: 'More about Face' }).click()
  await page.getByRole('combobox', { name: 'Form' }).click()
  await page.getByRole('option', { name: 'rounded' }).click()
  await page.getByRole('checkbox', { name: 'Border' }).check()
  await page.getByRole('checkbox', { name: 'Shadow' }).check()
  await page.keyboard.press('Escape')
  await page.getByRole('slider', { name: 'Out point' }).focus()
  for (let i = 0; i < 10; i++) await page.keyboard.press('Shift+ArrowUp')
  await page.keyboard.press('Escape')
  await page.keyboard.press('h')
  await page.keyboard.press('3')
  await page.keyboard.press('Home')
  for (let i = 0; i < 31; i++) await page.keyboard.press('ArrowRight')
  const preview = test.info().outputPath('preview.png')
  writeFileSync(preview, await steadyPicture(page.getByTestId('shape-tall')))
  const { path } = await renderAndSave(page)
  const still = test.info().outputPath('still.png')
  run('ffmpeg', ['-v', 'error', '-y', '-i', path, '-vf', "select='eq(n,31)'", '-frames:v', '1', still])
  const size = readFileSync(preview).subarray(16, 24)
  const [width, height] = [size.readUInt32BE(0), size.readUInt32BE(4)]
  expect(ssim(preview, ['-i', still], `[1:v]scale=${width}:${height}:flags=area[ref]`)).toBeGreaterThanOrEqual(0.97)
})

test('regions are moved and resized with the mouse and the keyboard, undone in one step each, and kept over a reload', async ({
  page,
}) => {
  const errors = watchForErrors(page)
  await toBench(page, made('silent.mp4'), 'silent')
  const start = await bounds(page, 'Face')
  const box = await page.getByRole('group', { name: /^Face: / }).boundingBox()
  if (!box) throw new Error('no region')
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
  await page.mouse.down()
  for (let i = 1; i <= 10; i++) await page.mouse.move(box.x + box.width / 2 - i * 10, box.y + box.height / 2 - i * 5)
  await page.mouse.up()
  const moved = await bounds(page, 'Face')
  expect(moved).not.toBe(start)
  expect(moved).toContain('320 × 180')

  const grip = await page.locator('[data-grip="se"]').boundingBox()
  if (!grip) throw new Error('no grip')
  await page.mouse.move(grip.x + 9, grip.y + 9)
  await page.mouse.down()
  await page.mouse.move(grip.x - 31, grip.y - 11, { steps: 5 })
  await page.mouse.up()
  const resized = await bounds(page, 'Face')
  expect(resized).not.toContain('320 × 180')

  await page.getByRole('group', { name: /^Face: / }).focus()
  await page.keyboard.press('ArrowLeft')
  await page.keyboard.press('Shift+ArrowUp')
  const nudged = await bounds(page, 'Face')
  expect(nudged).not.toBe(resized)

  await untilKept(page)
  await page.reload()
  await expect(page.getByRole('img', { name: 'Result, tall' })).toBeVisible()
  expect(await bounds(page, 'Face')).toBe(nudged)
  for (const state of [resized, moved, start]) {
    await page.keyboard.press('Control+z')
    await expect.poll(() => bounds(page, 'Face')).toBe(state)
  }
  await page.keyboard.press('Control+Shift+z')
  await expect.poll(() => bounds(page, 'Face')).toBe(moved)
  errors.expectNone()
})

test('the seam is dragged and nudged; both bands keep summing to the whole', async ({ page }) => {
  await toBench(page, made('silent.mp4'), 'silent')
  const seam = page.getByRole('separator', { name: 'Seam between bands, tall' })
  await expect(seam).toHaveAttribute('aria-valuetext', '608 and 1312 pixels')
  const box = await seam.boundingBox()
  if (!box) throw new Error('no seam')
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2 + 60, { steps: 6 })
  await page.mouse.up()
  const [above = 0, below = 0] = ((await seam.getAttribute('aria-valuetext')) ?? '').match(/\d+/g)?.map(Number) ?? []
  expect(above).toBeGreaterThan(700)
  expect(above + below).toBe(1920)
  await seam.focus()
  await page.keyboard.press('Shift+ArrowUp')
  await expect(seam).toHaveAttribute('aria-valuenow', String(above - 20))
})

test('in and out points follow the keys, land on frames, and playing stays between them', async ({ page }) => {
  await toBench(page, made('pattern.mp4'), 'pattern')
  const cut = (which: string) => page.getByRole('slider', { name: which }).getAttribute('aria-valuetext')
  for (let i = 0; i < 3; i++) await page.keyboard.press('Shift+ArrowRight')
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('i')
  await page.keyboard.press('Shift+ArrowRight')
  await page.keyboard.press('o')
  expect(await cut('In point')).toBe('0:03.016')
  expect(await cut('Out point')).toBe('0:04.016')
  const clock = async () => Number(((await page.getByTestId('clock').innerText()) ?? '').replace(/^.*:/, ''))
  await page.keyboard.press('Home')
  await page.keyboard.press('Space')
  const seen: number[] = []
  const cameRound = async () => {
    seen.push(await clock())
    return (seen.at(-2) ?? 0) - (seen.at(-1) ?? 0) > 0.3
  }
  await expect.poll(cameRound, { message: 'it came round again', intervals: [50] }).toBe(true)
  await page.keyboard.press('Space')
  expect(Math.max(...seen)).toBeGreaterThan(0.6)
  expect(Math.max(...seen)).toBeLessThanOrEqual(1.02)
  // A slow click in a pane that grows when it is worked in lands on what was pressed.
  await page.keyboard.press('2')
  const numbers = page.getByRole('button', { name: 'Settings of passage 1' })
  await untilSteady(numbers)
  const { x = 0, y = 0, width = 0, height = 0 } = (await numbers.boundingBox()) ?? {}
  await page.mouse.move(x + width / 2, y + height / 2)
  await page.mouse.down()
  await untilSteady(numbers)
  await page.mouse.up()
  await expect(page.getByRole('dialog', { name: 'Settings of passage 1' })).toBeVisible()
})

test('the picture in a panel is dragged and zoomed, and put back', async ({ page }) => {
  await toBench(page, made('silent.mp4'), 'silent')
  await setRegion(page, 'Game', { x: 0, y: 0, width: 1280, height: 720 })
  const panel = page.getByRole('group', { name: /^game panel/ }).first()
  const box = await panel.boundingBox()
  if (!box) throw new Error('no panel')
  await page.mouse.move(box.x + 60, box.y + 60)
  await page.mouse.down()
  await page.mouse.move(box.x + 20, box.y + 60, { steps: 4 })
  await page.mouse.up()
  await page.mouse.wheel(0, -200)
  await expect(page.getByRole('button', { name: 'Centre crop' })).toBeVisible()
  await page.getByRole('button', { name: 'Centre crop' }).click()
  await expect(page.getByRole('button', { name: 'Centre crop' })).toHaveCount(0)
})

test('three shapes are rendered from one highlight, and no file takes another’s name', async ({ page }) => {
  await toBench(page, made('vp9.webm'), 'vp9')
  await page.getByRole('slider', { name: 'Out point' }).focus()
  for (let i = 0; i < 7; i++) await page.keyboard.press('Shift+ArrowUp')
  await page.getByRole('button', { name: 'portrait', exact: true }).click()
  await page.getByRole('button', { name: 'square', exact: true }).click()
  for (const round of [1, 2]) {
    await page.getByRole('button', { name: 'Render', exact: true }).click()
    await page.getByRole('button', { name: 'Render 3 files' }).click()
    await expect(page.getByRole('link', { name: `${round * 3} files ready` })).toBeVisible({ timeout: 60_000 })
  }
  await page.getByRole('link', { name: 'Outbox' }).click()
  const names = page.locator('article[data-state="finished"] p[title$=".mp4"]')
  await expect(names).toHaveCount(6)
  expect(new Set(await names.allInnerTexts()).size).toBe(6)
  await page.getByRole('button', { name: 'Play' }).first().click()
  const video = page.locator('aside video')
  await expect.poll(() => video.evaluate((v: HTMLVideoElement) => v.readyState)).toBeGreaterThanOrEqual(2)
})
