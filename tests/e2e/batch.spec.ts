import { expect, test } from '@playwright/test'
import { copyFileSync, mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { addFiles, keepRecipe, keepSetup, takeLayout, toBench, watchForErrors } from '../support/brimble'
import { made } from '../support/makeRecordings'

test('clips of a known setup are laid out as they are dropped, seen on one sheet, laid out anew together, and rendered', async ({
  page,
}) => {
  test.setTimeout(240_000)
  const errors = watchForErrors(page)
  await toBench(page, made('silent.mp4'), 'silent')
  await keepSetup(page, 'Evening stream')
  await page.keyboard.press('3')
  for (const [layout, name] of [
    ['Corner card', 'Card evening'],
    ['Game alone', 'Only the game'],
  ] as const) {
    await takeLayout(page, layout)
    await keepRecipe(page, name, name === 'Card evening')
  }
  const folder = mkdtempSync(join(tmpdir(), 'brimble-clips-'))
  const clips = ['gate one.mp4', 'gate two.mp4', 'gate three.mp4'].map((name) => join(folder, name))
  for (const clip of clips) copyFileSync(made('silent.mp4'), clip)
  await page.goto('/')
  await addFiles(page, ...clips)
  await expect(page.getByText('3 highlights laid out by “Card evening”')).toBeVisible({ timeout: 90_000 })
  await page.getByRole('button', { name: 'See them' }).click()

  const sheet = page.getByRole('list', { name: 'Highlights' })
  await expect(sheet.getByRole('listitem')).toHaveCount(4)
  for (const name of ['gate one', 'gate two', 'gate three'])
    await expect(sheet.getByRole('listitem', { name })).toContainText(/stop|warning|note|nothing found/, {
      timeout: 60_000,
    })
  await sheet.getByRole('link', { name: 'Open gate two on the Bench' }).click()
  await expect(page.getByRole('button', { name: 'Layout: Corner card' })).toBeVisible()
  await page.goBack()
  // Recordings that are on the Shelf already, each as a highlight of its own.
  await page.getByRole('button', { name: 'From recordings…' }).click()
  const recordings = page.getByRole('dialog', { name: 'Lay out recordings by a recipe' })
  await recordings.getByLabel('Recipe', { exact: true }).click()
  await page.getByRole('option', { name: 'Only the game' }).click()
  await recordings.getByRole('checkbox', { name: 'gate three' }).check()
  await recordings.getByRole('checkbox', { name: 'silent' }).check()
  await recordings.getByRole('button', { name: 'Lay out 2' }).click()
  await expect(page.getByText('2 laid out by “Only the game”')).toBeVisible()
  await expect(sheet.getByRole('listitem')).toHaveCount(6)
  for (const name of ['gate one', 'gate two']) await sheet.getByRole('checkbox', { name: `Choose ${name}` }).check()
  await page.getByRole('button', { name: 'Lay out by a recipe' }).click()
  await page.getByRole('menuitem', { name: 'Only the game' }).click()
  await expect(page.getByText('2 laid out by “Only the game”').last()).toBeVisible()
  await page.getByRole('button', { name: 'Render all shapes of 2' }).click()
  const settings = page.getByRole('dialog', { name: 'Render 2 highlights' })
  await settings.getByLabel('All with the same settings').check()
  await settings.getByLabel('Frame rate').click()
  await page.getByRole('option', { name: '24 fps' }).click()
  await settings.getByRole('button', { name: 'Render 2 files' }).click()
  await page.getByRole('link', { name: 'Files', exact: true }).click()
  await expect(page.locator('article[data-state=finished]')).toHaveCount(2, { timeout: 120_000 })
  for (const file of await page.locator('article[data-state=finished]').all())
    await expect(file).toContainText('24 fps')
  errors.expectNone()
})
