import { expect, test, type Page } from '@playwright/test'
import { execFileSync } from 'node:child_process'
import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { addFiles, watchForErrors } from '../support/brimble'
import { inDatabase } from '../support/inDatabase.mjs'

const SECONDS = 150
/** When somebody shouts: with talk around, and long quiet before and after. */
const MOMENTS = [30, 75, 120]

/** A stream in which a tone talks now and then, and is loud three times. */
function stream(): string {
  const out = join('tests', '.made', 'drafts-stream.mp4')
  if (existsSync(out)) return out
  const loud = MOMENTS.map((t) => `between(t,${t},${t + 3})`).join('+')
  const talk = MOMENTS.map((t) => `between(t,${t - 5},${t - 1})+between(t,${t + 3.5},${t + 6})`).join('+')
  const sound = `(0.004+0.05*(${talk})+0.6*(${loud}))*(random(0)-0.5)`
  execFileSync('ffmpeg', [
    ...['-v', 'error', '-y', '-f', 'lavfi', '-i', `testsrc2=s=640x360:r=30:d=${SECONDS}`],
    ...['-f', 'lavfi', '-i', `aevalsrc='${sound}':s=48000:d=${SECONDS}`],
    ...['-c:v', 'libx264', '-preset', 'ultrafast', '-g', '60', '-c:a', 'aac', '-shortest', out],
  ])
  return out
}

interface Stored {
  name: string
  deletedAt: string | null
  passages: { inMicros: number; outMicros: number }[]
  shapes: { id: string }[]
  draft?: { isKept: boolean }
}

const highlights = async (page: Page): Promise<Stored[]> =>
  (
    await inDatabase(page, (db, done) =>
      done<Stored[]>(db.transaction('highlights').objectStore('highlights').getAll()),
    )
  ).filter((h) => !h.deletedAt)

async function ask(page: Page, count: number) {
  await page.getByRole('button', { name: 'Make drafts…' }).click()
  const dialog = page.getByRole('dialog', { name: 'Make drafts' })
  await dialog.getByLabel('Drafts, at most').fill(String(count))
  await dialog.getByLabel('Square feed').check()
  await dialog.getByRole('button', { name: 'Make drafts', exact: true }).click()
}

test('drafts of a stream: its moments, kept and dropped by keys, undone, rendered', async ({ page }) => {
  test.setTimeout(240_000)
  const errors = watchForErrors(page)
  await addFiles(page, stream())
  await ask(page, 3)
  await expect(page.getByText(/^3 drafts made\./)).toBeVisible({ timeout: 150_000 })
  const drafts = await highlights(page)
  expect(drafts).toHaveLength(3)
  for (const { passages, shapes } of drafts) {
    const [from, to] = [(passages[0]?.inMicros ?? 0) / 1e6, (passages.at(-1)?.outMicros ?? 0) / 1e6]
    const moment = MOMENTS.find((t) => from < t + 1 && to > t + 1) ?? NaN
    expect(moment, `${from} to ${to}`).not.toBeNaN()
    expect(to - from).toBeLessThanOrEqual(60)
    expect(shapes.map((s) => s.id).sort()).toEqual(['square', 'tall'])
  }
  const sheet = page.getByRole('list', { name: 'Highlights' })
  await expect(sheet.getByRole('listitem').first()).toContainText('louder than around it')

  // By keyboard alone: the first is kept, the second is dropped, brought back, renamed and kept.
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('y')
  await expect(sheet.getByRole('button', { name: /^Keep / }).first()).toHaveText('Kept')
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('n')
  await expect(sheet.getByRole('listitem')).toHaveCount(2)
  await page.keyboard.press('Control+z')
  await expect(sheet.getByRole('listitem')).toHaveCount(3)
  await page.keyboard.press('ArrowLeft')
  await expect(sheet.getByRole('listitem').nth(1)).toHaveAttribute('aria-current', 'true')
  await page.keyboard.press('t')
  await page.keyboard.type('Over the ridge')
  await page.keyboard.press('Enter')
  await expect(sheet.getByRole('listitem', { name: 'Over the ridge' })).toBeVisible()
  await page.keyboard.press('y')
  await expect(sheet.getByRole('button', { name: 'Keep Over the ridge' })).toHaveText('Kept')
  await page.keyboard.press('Space')
  await expect(sheet.getByRole('img', { name: 'Over the ridge, playing' })).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(sheet.getByRole('img', { name: 'Over the ridge, playing' })).toBeHidden()

  // All of the rest goes at once; what is kept stays.
  await page.getByRole('button', { name: 'Undo all' }).click()
  await expect(page.getByText('1 draft is in the bin.')).toBeVisible()
  await expect(sheet.getByRole('listitem')).toHaveCount(2)
  await page.getByRole('button', { name: 'Choose 2 kept' }).click()
  await page.getByRole('button', { name: 'Render all shapes of 2' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Render 4 files' }).click()
  await expect(page.getByText('Rendering 4 files.')).toBeVisible()
  errors.expectNone()
})

test('drafts go on after a reload, none twice and none lost, and stop when they are told to', async ({ page }) => {
  test.setTimeout(240_000)
  await addFiles(page, stream())
  await ask(page, 3)
  await expect(page.getByRole('progressbar', { name: 'Drafts made' })).toBeVisible()
  await page.reload()
  await expect(page.getByText(/^Making draft 2 of 3/)).toBeVisible({ timeout: 150_000 })
  await page.reload()
  await expect(page.getByText(/^3 drafts made\./)).toBeVisible({ timeout: 150_000 })
  expect(await highlights(page)).toHaveLength(3)
  expect(new Set((await highlights(page)).map((h) => h.passages[0]?.inMicros)).size).toBe(3)

  // What was cut before is not proposed again.
  await ask(page, 3)
  await expect(page.getByText(/^(Nothing lively|[12] drafts? made)/)).toBeVisible({ timeout: 150_000 })
  const peaks = (await highlights(page)).map((h) => h.passages[0]?.inMicros)
  expect(new Set(peaks).size).toBe(peaks.length)
})

test('drafts that are stopped leave what is made and nothing half made', async ({ page }) => {
  test.setTimeout(240_000)
  await addFiles(page, stream())
  await ask(page, 3)
  await expect(page.getByText(/^Making draft 2 of 3/)).toBeVisible({ timeout: 150_000 })
  await page.getByRole('button', { name: 'Stop', exact: true }).click()
  const stopped = page.getByText(/^Stopped after [12] of 3 drafts\.$/)
  await expect(stopped).toBeVisible()
  const made = Number(/\d/.exec((await stopped.textContent()) ?? '')?.[0])
  await expect.poll(async () => (await highlights(page)).length, { timeout: 60_000 }).toBe(made)
})
