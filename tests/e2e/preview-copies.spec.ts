import { expect, test, type Page } from '@playwright/test'
import { readFileSync, writeFileSync } from 'node:fs'
import { renderAndSave, SMALL, toBench, watchForErrors } from '../support/brimble'
import { ffmpeg, ffprobe, frameTimes, lumaOfFrames, run } from '../support/ffmpeg'
import { inDatabase } from '../support/inDatabase.mjs'
import { FLASH, made } from '../support/makeRecordings'

interface Copy {
  index: number
  base64: string
}

const copiesKept = (page: Page): Promise<Copy[]> =>
  inDatabase(page, async (db, done) => {
    const kept = await done(db.transaction('previewCopies').objectStore('previewCopies').getAll())
    const read = async ({ index, file }: { index: number; file: Blob }) => ({
      index,
      base64: btoa(Array.from(new Uint8Array(await file.arrayBuffer()), (b) => String.fromCharCode(b)).join('')),
    })
    return Promise.all((kept as { index: number; file: Blob }[]).map(read))
  })

/** Puts another film in the place of every copy. */
const replaceCopies = (page: Page, file: string): Promise<void> =>
  inDatabase(
    page,
    async (db, done, base64) => {
      const bytes = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0))
      const table = db.transaction('previewCopies', 'readwrite').objectStore('previewCopies')
      for (const copy of (await done(table.getAll())) as object[])
        await done(table.put({ ...copy, file: new Blob([bytes], { type: 'video/mp4' }) }))
    },
    readFileSync(file).toString('base64'),
  )

/** How red the result is on average: red less green, of 255. */
async function redness(page: Page): Promise<number> {
  const picture = await page.getByTestId('shape-tall').screenshot()
  const args = ['-v', 'error', '-i', '-', '-vf', 'scale=1:1:flags=area', '-f', 'rawvideo', '-pix_fmt', 'rgb24', '-']
  const [red = 0, green = 0] = run('ffmpeg', args, picture)
  return red - green
}

test('what plays is read from small copies that are exact in time; a picture at rest and files never are', async ({
  page,
}) => {
  const errors = watchForErrors(page)
  await toBench(page, made('silent.mp4'), 'silent')
  await expect.poll(async () => (await copiesKept(page)).length, { timeout: 60_000 }).toBe(1)
  const bench = page.url()
  const before = await renderAndSave(page, { size: SMALL })

  const [copy] = await copiesKept(page)
  const path = test.info().outputPath('copy.mp4')
  writeFileSync(path, Buffer.from(copy?.base64 ?? '', 'base64'))
  expect(ffprobe(path).video).toMatchObject({ width: 960, height: 540 })
  expect(frameTimes(path)).toEqual(frameTimes(made('silent.mp4')))
  const [small, recorded] = [lumaOfFrames(path), lumaOfFrames(made('silent.mp4'))]
  const flash = (lumas: number[]) => lumas.findIndex((luma) => luma > Math.max(...lumas) - 8)
  expect(flash(small)).toBe(flash(recorded))
  expect(flash(small)).toBe(FLASH * 30)

  const red = test.info().outputPath('red.mp4')
  ffmpeg('-f', 'lavfi', '-i', 'color=red:s=960x540:r=30:d=8', '-c:v', 'libx264', '-pix_fmt', 'yuv420p', red)
  await replaceCopies(page, red)
  await page.goto(bench)
  await expect(page.getByRole('img', { name: 'Result, tall' })).toBeVisible()
  await page.keyboard.press('h')
  await expect.poll(() => redness(page)).toBeLessThan(150)
  await page.keyboard.press('Space')
  await expect.poll(() => redness(page)).toBeGreaterThan(150)
  await page.keyboard.press('k')
  await expect.poll(() => redness(page)).toBeLessThan(150)

  const after = await renderAndSave(page, { size: SMALL })
  // The browser's encoder never writes the same bits twice; a frame of the copy would be far off.
  const [frames, again] = [lumaOfFrames(before.path), lumaOfFrames(after.path)]
  expect(again).toHaveLength(frames.length)
  expect(Math.max(...frames.map((luma, n) => Math.abs(luma - (again[n] ?? 0))))).toBeLessThan(1)
  errors.expectNone()
})

test('how much room preview copies may take is shown and changed; none are made where there may be none', async ({
  page,
}) => {
  await toBench(page, made('silent.mp4'), 'silent')
  await expect.poll(async () => (await copiesKept(page)).length, { timeout: 60_000 }).toBe(1)
  const bench = page.url()
  await page.goto('/')
  const used = page.getByRole('button', { name: / used/ })
  await used.click()
  const dialog = page.getByRole('dialog', { name: 'Storage in this browser' })
  await expect(dialog.getByRole('textbox', { name: 'Room for preview copies' })).toHaveValue('1024')
  await dialog.getByRole('button', { name: 'Delete preview copies' }).click()
  await expect(dialog.getByRole('button', { name: 'Delete preview copies' })).toBeDisabled()
  await dialog.getByRole('textbox', { name: 'Room for preview copies' }).fill('0')
  await dialog.getByRole('textbox', { name: 'Room for preview copies' }).press('Enter')
  await dialog.getByRole('button', { name: 'Close' }).click()
  await page.goto(bench)
  await expect(page.getByRole('img', { name: 'Result, tall' })).toBeVisible()
  await page.keyboard.press('Space')
  await expect(page.getByText(/fps/).first()).toBeVisible()
  expect(await copiesKept(page)).toEqual([])
})

test('a copy that is damaged is left aside, and the recording is played in its place', async ({ page }) => {
  await toBench(page, made('silent.mp4'), 'silent')
  await expect.poll(async () => (await copiesKept(page)).length, { timeout: 60_000 }).toBe(1)
  const bench = page.url()
  const half = test.info().outputPath('half.mp4')
  const whole = Buffer.from((await copiesKept(page))[0]?.base64 ?? '', 'base64')
  writeFileSync(half, whole.subarray(0, Math.round(whole.length * 0.6)))
  await replaceCopies(page, half)
  await page.goto(bench)
  await expect(page.getByRole('img', { name: 'Result, tall' })).toBeVisible()
  await page.keyboard.press('End')
  await page.keyboard.press('Shift+ArrowLeft')
  await page.keyboard.press('Space')
  await expect(page.getByText(/fps/).first()).toBeVisible()
  await page.keyboard.press('k')
  await expect(page.getByText(/can no longer be read/)).toHaveCount(0)
})
