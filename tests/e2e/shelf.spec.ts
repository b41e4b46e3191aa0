import { expect, test } from '@playwright/test'
import { readFileSync } from 'node:fs'
import { addFiles, watchForErrors } from '../support/brimble'
import { made } from '../support/makeRecordings'

test('the demo shelf opens from the empty one, with pictures, and nothing is asked of anybody else', async ({ page }) => {
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
    carried.items.add(new File([Uint8Array.from(atob(data), (c) => c.charCodeAt(0))], 'dropped.mp4', { type: 'video/mp4' }))
    return carried
  }, bytes)
  await page.dispatchEvent('main', 'drop', { dataTransfer: transfer })
  await expect(page.getByRole('article', { name: 'dropped' })).toBeVisible()
})
