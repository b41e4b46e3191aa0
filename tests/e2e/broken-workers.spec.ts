import { expect, test, type Page } from '@playwright/test'
import { addFiles } from '../support/brimble'
import { made } from '../support/makeRecordings'
import { readFileSync } from 'node:fs'

/** Workers' code cannot be loaded, until the page's `workersWork` is true. */
async function breakWorkers(page: Page): Promise<void> {
  await page.addInitScript(() => {
    const { Worker } = window
    const make = (address: string | URL, options?: WorkerOptions) =>
      new Worker(Reflect.get(window, 'workersWork') ? address : '/gone.js', options)
    Object.assign(window, {
      Worker: new Proxy(Worker, { construct: (_target, given) => make(...(given as [string])) }),
    })
  })
}

test('a worker whose code cannot be loaded says so, and is started again', async ({ page }) => {
  await breakWorkers(page)
  await addFiles(page, made('silent.mp4'))
  await expect(page.getByText(/“silent.mp4” could not be added: a part of Brimble .* stopped/)).toBeVisible()
  await expect(page.getByRole('progressbar')).toHaveCount(0)
  await expect(page.getByRole('article')).toHaveCount(0)
  await page.evaluate(() => void Reflect.set(window, 'workersWork', true))
  await addFiles(page, made('silent.mp4'))
  await expect(page.getByRole('article', { name: 'silent' })).toBeVisible()
})

test('what went wrong can be looked at, saved and cleared, and names no file', async ({ page }) => {
  await breakWorkers(page)
  await addFiles(page, made('silent.mp4'))
  await expect(page.getByText(/“silent.mp4” could not be added/)).toBeVisible()
  await page.reload()
  await page.getByRole('button', { name: 'More', exact: true }).click()
  await page.getByRole('menuitem', { name: /^Diagnostics/ }).click()
  const dialog = page.getByRole('dialog', { name: 'Diagnostics' })
  const errors = dialog.getByRole('list', { name: 'Errors' }).getByRole('listitem')
  await expect(errors.first()).toContainText('adding a recording')
  await expect(errors.first()).toContainText('works in the background stopped')
  const download = page.waitForEvent('download')
  await dialog.getByRole('button', { name: 'Save as text' }).click()
  const text = readFileSync(await (await download).path(), 'utf8')
  expect(text).toContain('adding a recording')
  expect(text).not.toMatch(/silent|localhost/)
  await dialog.getByRole('button', { name: 'Clear' }).click()
  await expect(dialog.getByText('Nothing has gone wrong.')).toBeVisible()
  await expect(errors).toHaveCount(0)
})
