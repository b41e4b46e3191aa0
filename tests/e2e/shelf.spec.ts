import { expect, test } from '@playwright/test'
import { readFileSync } from 'node:fs'
import { addFiles, toBench, watchForErrors } from '../support/brimble'
import { inDatabase } from '../support/inDatabase.mjs'
import { made } from '../support/makeRecordings'

test('the demo shelf opens from the empty one, with pictures, and nothing is asked of anybody else', async ({
  page,
}) => {
  const errors = watchForErrors(page)
  await page.goto('/')
  await page.getByRole('button', { name: 'Open the demo shelf' }).click()
  await expect(page.getByRole('article')).toHaveCount(6)
  await expect(page.getByRole('heading', { name: 'Ridge Cup, heat 3' })).toBeVisible()
  await expect.poll(() => page.locator('article[aria-label="Ridge Cup, heat 3"] img').count()).toBeGreaterThanOrEqual(9)
  const policy = (await page.request.get('/')).headers()['content-security-policy'] ?? ''
  expect(policy).toContain("default-src 'self'")
  expect(policy).not.toMatch(/https?:/)
  errors.expectNone()
})

test('recordings and highlights go to the bin and come back', async ({ page }) => {
  await addFiles(page, made('silent.mp4'))
  const row = page.getByRole('article', { name: 'silent' })
  await row.hover()
  await row.getByRole('button', { name: 'Move “silent” to the bin' }).click()
  await expect(row).toHaveCount(0)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(row).toBeVisible()
  await row.hover()
  await row.getByRole('button', { name: 'Move “silent” to the bin' }).click()
  await page.getByRole('button', { name: 'Bin 1' }).click()
  await page.getByRole('button', { name: 'Put back' }).click()
  await page.getByRole('button', { name: 'Close' }).click()
  await expect(row).toBeVisible()
})

test('files dropped on the page are added', async ({ page }) => {
  await page.goto('/')
  await expect(page.getByRole('heading', { name: 'Your recordings go here' })).toBeVisible()
  const bytes = readFileSync(made('silent.mp4')).toString('base64')
  const transfer = await page.evaluateHandle((data) => {
    const carried = new DataTransfer()
    carried.items.add(
      new File([Uint8Array.from(atob(data), (c) => c.charCodeAt(0))], 'dropped.mp4', { type: 'video/mp4' }),
    )
    return carried
  }, bytes)
  await page.dispatchEvent('main', 'drop', { dataTransfer: transfer })
  await expect(page.getByRole('article', { name: 'dropped' })).toBeVisible()
})

test('the picture of a highlight with a strike and marks shows what the highlight shows', async ({ page }) => {
  await toBench(page, made('pattern.mp4'), 'pattern')
  // What is struck out ends at the middle of what is left, where the picture is taken from.
  await page.keyboard.press('1')
  for (let n = 0; n < 4; n++) await page.keyboard.press('Shift+ArrowRight')
  await page.keyboard.press(',')
  for (let n = 0; n < 4; n++) await page.keyboard.press('Shift+ArrowRight')
  await page.keyboard.press('.')
  await page.keyboard.press('x')
  await expect(page.getByRole('button', { name: /^Restore 0:04/ })).toBeVisible()
  for (const kind of ['Progress bar', 'Sound level']) {
    await page.getByRole('button', { name: 'Add overlay' }).click()
    await page.getByRole('menuitem', { name: kind, exact: true }).click()
    await page.keyboard.press('Escape')
  }
  await page.getByRole('link', { name: 'Brimble' }).click()
  const poster = page.getByRole('link', { name: /open on the Bench$/ }).locator('img')
  await expect(poster).toBeVisible({ timeout: 60_000 })
  /** How many different brightnesses there are in it, of 32. */
  const levels = () =>
    poster.evaluate(async (image: HTMLImageElement) => {
      await image.decode()
      const canvas = new OffscreenCanvas(image.naturalWidth, image.naturalHeight)
      const context = canvas.getContext('2d')
      if (!context) throw new Error('no canvas')
      context.drawImage(image, 0, 0)
      const { data } = context.getImageData(0, 0, canvas.width, canvas.height)
      return new Set(Array.from({ length: data.length / 4 }, (_, n) => (data[4 * n + 1] ?? 0) >> 3)).size
    })
  await expect.poll(levels).toBeGreaterThan(12)
})

test('pictures across a recording that a closed tab left unmade are made at the next visit, all of them', async ({
  page,
}) => {
  await addFiles(page, made('pattern.mp4'))
  const strip = page.getByRole('article', { name: 'pattern' }).locator('img')
  await expect(strip).toHaveCount(7)
  await inDatabase(page, async (db, done) => {
    await done(db.transaction('pictures', 'readwrite').objectStore('pictures').clear())
  })
  await page.reload()
  await expect(strip).toHaveCount(7)
})

test('the Shelf is searched by names and by what is said; what is not there is said', async ({ page }) => {
  await page.goto('/')
  await page.getByRole('button', { name: 'Open the demo shelf' }).click()
  await expect(page.getByRole('article')).toHaveCount(6, { timeout: 60_000 })
  const search = page.getByRole('searchbox', { name: 'Search the Shelf' })
  await search.fill('TEA tent')
  await expect(page.getByRole('article')).toHaveCount(1)
  await search.fill('winch')
  await expect(page.getByRole('article')).toHaveCount(1)
  await search.fill('submarine')
  await expect(page.getByText('Nothing here has “submarine”.')).toBeVisible()
  await page.getByRole('button', { name: 'Show all' }).click()
  await expect(page.getByRole('article')).toHaveCount(6)
  await expect(search).toHaveValue('')
})
