import { expect, test, type Page } from '@playwright/test'
import { readdirSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { addFiles, renderAndSave, SMALL, watchForErrors } from '../support/brimble'
import { ffprobe, frameTimes, lumaOfFrames, onset, pixelAt, run, sound } from '../support/ffmpeg'
import { inDatabase } from '../support/inDatabase.mjs'
import { FLASH, made } from '../support/makeRecordings'

// The server makes one copy at a time.
test.describe.configure({ mode: 'default' })

const leftBehind = () => readdirSync(tmpdir()).filter((name) => name.startsWith('brimble-working-copy'))

async function copyToBench(page: Page, file: string): Promise<void> {
  const name = file.replace(/\.\w+$/, '')
  await addFiles(page, made(file))
  await page.getByRole('button', { name: 'Make a copy that can be edited' }).click()
  const row = page.getByRole('article', { name })
  await expect(row.getByText(/^Edited from a copy that ffmpeg made\./)).toBeVisible({ timeout: 60_000 })
  await row.getByRole('button', { name: `Cut a highlight from ${name}` }).click()
  await expect(page.getByRole('img', { name: 'Result, tall' })).toBeVisible()
}

/** The bytes that are kept of the one recording on the Shelf, in base 64. */
const keptFile = (page: Page): Promise<string> =>
  inDatabase(page, async (db, done) => {
    const [kept] = (await done(db.transaction('files').objectStore('files').getAll())) as { blob: Blob }[]
    const bytes = new Uint8Array(await (kept?.blob ?? new Blob()).arrayBuffer())
    return btoa(Array.from(bytes, (byte) => String.fromCharCode(byte)).join(''))
  })

/** Seconds by which the beep comes after the flash. */
function soundBehindPicture(path: string): number {
  const lumas = lumaOfFrames(path)
  const brightest = Math.max(...lumas)
  const flash = lumas.findIndex((luma) => luma > brightest - 8)
  return onset(sound(path)) - (frameTimes(path)[flash] ?? NaN)
}

for (const file of ['phone-hdr.mov', 'prores.mov', 'interlaced-dv.avi'] as const)
  test(`${file}, which no browser reads, becomes a file in sync and of its length`, async ({ page }) => {
    const errors = watchForErrors(page)
    await copyToBench(page, file)
    const { path } = await renderAndSave(page, { size: SMALL })
    const { format } = ffprobe(path)
    expect(Math.abs(Number(format.duration) - Number(ffprobe(made(file)).format.duration))).toBeLessThan(0.045)
    expect(Math.abs(soundBehindPicture(path))).toBeLessThan(0.035)
    expect(Math.abs(onset(sound(path)) - FLASH)).toBeLessThan(0.01)
    expect(leftBehind()).toEqual([])
    errors.expectNone()
  })

test('HDR is brought to BT.709 as ffmpeg’s own filters do it, upright', async ({ page }, testInfo) => {
  await copyToBench(page, 'phone-hdr.mov')
  const copy = testInfo.outputPath('copy.mp4')
  writeFileSync(copy, Buffer.from(await keptFile(page), 'base64'))
  const reference = testInfo.outputPath('reference.png')
  const filters = 'zscale=t=linear:npl=100,format=gbrpf32le,zscale=p=bt709,tonemap=tonemap=hable:desat=0'
  run('ffmpeg', [
    ...['-v', 'error', '-y', '-ss', '1', '-i', made('phone-hdr.mov')],
    ...['-vf', `${filters},zscale=t=bt709:m=bt709:r=tv,format=yuv420p`, '-frames:v', '1', reference],
  ])
  expect(ffprobe(copy).video).toMatchObject({ width: 360, height: 640, codec_name: 'h264' })
  const levels: number[] = []
  // Skin over one quarter, grey over the others.
  for (const x of [60, 300])
    for (const y of [60, 580]) {
      const wanted = pixelAt(reference, 0, x, y)
      for (const [channel, level] of pixelAt(copy, 1, x, y).entries())
        levels.push(Math.abs(level - (wanted[channel] ?? NaN)))
    }
  expect(Math.max(...levels)).toBeLessThanOrEqual(6)
})

test('a copy that is stopped leaves nothing behind, and what is no picture is said', async ({ page }) => {
  // However fast the copy is, it is stopped before the page has it.
  await page.route('**/api/working-copy/file**', (route) =>
    route.request().method() === 'GET' ? undefined : route.continue(),
  )
  await addFiles(page, made('prores.mov'), made('sound-only.mp4'))
  const [prores, soundOnly] = ['prores.mov', 'sound-only.mp4'].map((name) =>
    page.getByRole('alert').filter({ hasText: name }),
  )
  await soundOnly?.getByRole('button', { name: 'Make a copy that can be edited' }).click()
  await expect(soundOnly?.getByText('ffmpeg finds no picture in it.') ?? page.locator('none')).toBeVisible()
  await prores?.getByRole('button', { name: 'Make a copy that can be edited' }).click()
  await prores?.getByRole('button', { name: 'Cancel' }).click()
  await expect(
    prores?.getByRole('button', { name: 'Make a copy that can be edited' }) ?? page.locator('none'),
  ).toBeVisible()
  await expect.poll(leftBehind).toEqual([])
  await expect(page.getByRole('article')).toHaveCount(0)
})

test('a copy whose bytes are gone is made again from the file that it was made of', async ({ page }) => {
  await copyToBench(page, 'prores.mov')
  const bench = page.url()
  await inDatabase(page, (db, done) => done(db.transaction('files', 'readwrite').objectStore('files').clear()))
  await page.goto(bench)
  await expect(page.getByRole('heading', { name: '“prores.mov” is missing' })).toBeVisible()
  const chooser = page.waitForEvent('filechooser')
  await page.getByRole('button', { name: 'Choose the file again' }).click()
  await (await chooser).setFiles(made('prores.mov'))
  await page.getByRole('button', { name: 'Make a copy that can be edited' }).click()
  await expect(page.getByRole('img', { name: 'Result, tall' })).toBeVisible({ timeout: 60_000 })
})
