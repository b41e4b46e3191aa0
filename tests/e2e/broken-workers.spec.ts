import { expect, test } from '@playwright/test'
import { addFiles } from '../support/brimble'
import { made } from '../support/makeRecordings'

test('a worker whose code cannot be loaded says so, and is started again', async ({ page }) => {
  await page.addInitScript(() => {
    const { Worker } = window
    const make = (address: string | URL, options?: WorkerOptions) =>
      new Worker(Reflect.get(window, 'workersWork') ? address : '/gone.js', options)
    Object.assign(window, {
      Worker: new Proxy(Worker, { construct: (_target, given) => make(...(given as [string])) }),
    })
  })
  await addFiles(page, made('silent.mp4'))
  await expect(page.getByText(/“silent.mp4” could not be added: a part of Brimble .* stopped/)).toBeVisible()
  await expect(page.getByRole('progressbar')).toHaveCount(0)
  await expect(page.getByRole('article')).toHaveCount(0)
  await page.evaluate(() => void Reflect.set(window, 'workersWork', true))
  await addFiles(page, made('silent.mp4'))
  await expect(page.getByRole('article', { name: 'silent' })).toBeVisible()
})
