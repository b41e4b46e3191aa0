import { expect, test } from '@playwright/test'
import { toBench } from '../support/brimble'
import { made } from '../support/makeRecordings'

test('a letter is changed and does what it says; letters are switched off, and on again', async ({ page }) => {
  await toBench(page, made('silent.mp4'), 'silent')
  const splits = page.getByRole('button', { name: /^Numbers of passage/ })
  const dialog = page.getByRole('dialog', { name: 'Keys' })
  const forward = async () => {
    await page.keyboard.press('1')
    await page.keyboard.press('Shift+ArrowRight')
  }
  await page.keyboard.press('?')
  await dialog.getByRole('button', { name: /^Change the key for “Split the passage here”, now S/ }).click()
  await page.keyboard.press('q')
  await expect(dialog.getByRole('button', { name: /“Split the passage here”, now Q/ })).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(dialog).toHaveCount(0)
  await forward()
  await page.keyboard.press('s')
  await page.keyboard.press('q')
  await expect(splits).toHaveCount(2)

  await page.reload()
  await expect(page.getByRole('img', { name: 'Result, tall' })).toBeVisible()
  await page.getByRole('button', { name: 'Keys' }).click()
  await expect(dialog.getByRole('button', { name: /“Split the passage here”, now Q/ })).toBeVisible()
  await dialog.getByLabel('Single letters, digits and marks').uncheck()
  await page.keyboard.press('Escape')
  await expect(dialog).toHaveCount(0)
  await page.keyboard.press('Control+z')
  await expect(splits).toHaveCount(1)
  await page.keyboard.press('Shift+ArrowRight')
  await page.keyboard.press('q')
  await page.getByRole('button', { name: 'Keys' }).click()
  await dialog.getByRole('button', { name: 'Usual keys' }).click()
  await dialog.getByLabel('Single letters, digits and marks').check()
  await page.keyboard.press('Escape')
  await expect(splits).toHaveCount(1)
  await forward()
  await page.keyboard.press('s')
  await expect(splits).toHaveCount(2)
})
