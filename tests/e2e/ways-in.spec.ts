import { expect, test, type Page } from '@playwright/test'
import { readFileSync } from 'node:fs'
import { choosePlainly, keepRecipe, keepSetup, takeLayout, toBench, watchForErrors } from '../support/brimble'
import { made } from '../support/makeRecordings'

test('clips of a host are listed by month, got by mark or address, and what goes wrong is told', async ({ page }) => {
  const errors = watchForErrors(page)
  await choosePlainly(page)
  await page.goto('/')
  await page.getByRole('button', { name: 'More', exact: true }).click()
  await page.getByRole('menuitem', { name: /^From a clip host/ }).click()
  const dialog = page.getByRole('dialog', { name: 'From a clip host' })
  await expect(dialog.getByRole('note')).toContainText('Stand-in.')
  await expect(dialog.getByRole('listitem')).toHaveCount(2)
  await dialog.getByLabel('Month').click()
  await page.getByRole('option', { name: 'September 2026' }).click()
  await expect(dialog.getByRole('listitem')).toHaveCount(1)
  await dialog.getByLabel('Month').click()
  await page.getByRole('option', { name: 'November 2026' }).click()
  for (const name of ['The winch cable sings', 'Last landing at dusk'])
    await dialog.getByRole('checkbox', { name }).check()
  await dialog.getByRole('button', { name: 'Add 2 to the Shelf' }).click()
  await expect(dialog.getByText(/^on the Shelf · /)).toHaveCount(2, { timeout: 60_000 })

  const address = dialog.getByLabel('Address of a clip')
  await address.fill('https://clips.example/no-such-flight')
  await address.press('Enter')
  await expect(dialog.getByRole('alert')).toContainText('There is no clip at this address')
  for (const [fault, words] of [
    ['breaks off half-way', 'broke off'],
    ['is too busy', 'too busy'],
    ['says: sign in again', 'sign-in'],
    ['cannot be reached', 'cannot be reached'],
  ] as const) {
    await dialog.getByLabel('The stand-in').click()
    await page.getByRole('option', { name: fault }).click()
    await address.fill('https://clips.example/dawn-on-the-field')
    await dialog.getByRole('button', { name: 'Get it' }).click()
    await expect(dialog.getByRole('alert')).toContainText(words)
  }
  await dialog.getByLabel('The stand-in').click()
  await page.getByRole('option', { name: 'answers' }).click()
  await dialog.getByRole('button', { name: 'Get it' }).click()
  await expect(address).toHaveValue('', { timeout: 60_000 })
  await dialog.getByRole('button', { name: 'Close' }).click()
  // Three came, with the host's names, on the days that they were recorded; none of what broke off.
  await expect(page.getByRole('button', { name: /^Cut a highlight from/ })).toHaveCount(3)
  await expect(page.getByRole('region', { name: 'Saturday 31 October' })).toContainText('Dawn on the field')
  // What a failing host answers, the browser writes down as an error of the page's.
  errors.expectNone(/status of (404|401|502|503)/)
})

/** Stands a folder of the browser's own disk in for one that a person would choose. */
async function standInForFolder(page: Page) {
  await page.addInitScript(() => {
    window.showDirectoryPicker = async () =>
      (await navigator.storage.getDirectory()).getDirectoryHandle('captures', { create: true })
  })
}

/** Writes a file of that folder from `from` to `to`, as shares of the whole. */
async function recorded(page: Page, name: string, path: string, from: number, to: number) {
  await page.evaluate(
    async ({ name, base64, from, to }) => {
      const bytes = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0))
      const folder = await (await navigator.storage.getDirectory()).getDirectoryHandle('captures', { create: true })
      const writable = await (
        await folder.getFileHandle(name, { create: true })
      ).createWritable({ keepExistingData: true })
      const at = (share: number) => Math.round(bytes.length * share)
      await writable.write({ type: 'write', position: at(from), data: bytes.slice(at(from), at(to)) })
      await writable.close()
    },
    { name, base64: readFileSync(path).toString('base64'), from, to },
  )
}

test('what a recorder writes is taken in once it is whole, laid out and rendered; nothing half-written, nothing twice', async ({
  page,
}) => {
  test.setTimeout(300_000)
  const errors = watchForErrors(page)
  await page.clock.install()
  await toBench(page, made('silent.mp4'), 'silent')
  await standInForFolder(page)
  await keepSetup(page, 'Evening stream')
  await page.keyboard.press('3')
  await takeLayout(page, 'Corner card')
  await keepRecipe(page, 'Card evening')

  await page.goto('/')
  await recorded(page, 'old flight.mp4', made('silent.mp4'), 0, 1)
  await page.getByRole('button', { name: 'More', exact: true }).click()
  await page.getByRole('menuitem', { name: /^The recorder’s folder/ }).click()
  const dialog = page.getByRole('dialog', { name: 'The recorder’s folder' })
  await dialog.getByRole('button', { name: 'Choose a folder' }).click()
  const render = dialog.getByRole('checkbox', { name: /^Render what is laid out/ })
  await render.click()
  await expect(render).toBeChecked()
  await expect(dialog).toContainText('1 recording was there before.')

  // Half of a file, then a pause shorter than it takes, then the rest.
  await recorded(page, 'gate one.mp4', made('silent.mp4'), 0, 0.5)
  await expect(dialog.getByRole('status')).toHaveText('Being written: gate one.mp4')
  await page.clock.fastForward(6000)
  await recorded(page, 'gate one.mp4', made('silent.mp4'), 0.5, 1)
  await page.clock.fastForward(6000)
  await expect(dialog.getByRole('status')).toHaveText('Being written: gate one.mp4')
  await recorded(page, 'words.mp4', made('notes.mp4'), 0, 1)
  const files = dialog.getByRole('list', { name: 'Files taken in' })
  await expect(files.getByRole('listitem').filter({ hasText: 'gate one.mp4' })).toContainText(
    'laid out, in the render queue',
    { timeout: 60_000 },
  )
  await expect(files.getByRole('listitem').filter({ hasText: 'words.mp4' })).toContainText('is not a video', {
    timeout: 60_000,
  })

  // Reloaded, and written to again: it has been taken in, and stays one recording.
  await page.reload()
  await recorded(page, 'gate one.mp4', made('silent.mp4'), 0, 1)
  await expect(page.getByRole('button', { name: 'Watching “captures”' })).toBeVisible()
  await page.getByRole('button', { name: 'Watching “captures”' }).click()
  await dialog.getByRole('button', { name: 'Take it in too' }).click()
  await expect(files.getByRole('listitem').filter({ hasText: 'old flight.mp4' })).toContainText(
    'laid out, in the render queue',
    { timeout: 60_000 },
  )
  await expect(files.getByRole('listitem')).toHaveCount(3)
  // Not watched for a while, and chosen again: all of it is known.
  await dialog.getByRole('button', { name: 'Stop watching' }).click()
  await dialog.getByRole('button', { name: 'Choose a folder' }).click()
  await expect(files.getByRole('listitem')).toHaveCount(3)
  await expect(dialog.getByText('there before')).toHaveCount(0)
  await dialog.getByRole('button', { name: 'Stop watching' }).click()
  await dialog.getByRole('button', { name: 'Close' }).click()
  await expect(page.getByRole('button', { name: /^Cut a highlight from/ })).toHaveCount(3)
  await page.getByRole('link', { name: 'Outbox' }).click()
  await expect(page.locator('article[data-state=finished]')).toHaveCount(2, { timeout: 120_000 })
  errors.expectNone()
})
