import { expect, test } from '@playwright/test'
import { toBench, watchForErrors } from '../support/brimble'
import { made } from '../support/makeRecordings'

test('every screen says what it is, in its tab, its heading and its help, which explains the words', async ({
  page,
}) => {
  const errors = watchForErrors(page)
  await toBench(page, made('silent.mp4'), 'silent')
  await expect(page).toHaveTitle('silent, cut 1 · Bench · Brimble')
  const bench = new URL(page.url()).pathname
  const screens: [address: string, name: string, title: RegExp][] = [
    ['/', 'Shelf', /^Shelf · Brimble$/],
    ['/rack', 'Rack', /^Rack · Brimble$/],
    ['/outbox', 'Outbox', /^Outbox · Brimble$/],
    ['/outbox/sheet', 'Contact sheet', /^Contact sheet · Brimble$/],
    ['/outbox/week', 'The week', /^The week · Brimble$/],
    [bench, 'Bench', /^silent, cut 1 · Bench · Brimble$/],
  ]
  for (const [address, name, title] of screens) {
    await page.goto(address)
    await expect(page).toHaveTitle(title)
    await expect(page.getByRole('heading', { level: 1 })).toHaveCount(1)
    await page.getByRole('button', { name: 'Help' }).click()
    const help = page.getByRole('dialog', { name: `Help: ${name}` })
    await expect(help.getByRole('list', { name: 'What you can do here' }).getByRole('listitem')).not.toHaveCount(0)
    await expect(help.getByText('A named place in the recorded picture')).toBeVisible()
    await page.keyboard.press('Escape')
    await expect(help).toHaveCount(0)
  }
  await page.goto('/')
  await page
    .getByRole('link', { name: /^Find moments in/ })
    .first()
    .click()
  await expect(page).toHaveTitle('silent · Spot · Brimble')
  errors.expectNone()
})
