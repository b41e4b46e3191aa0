import { expect, test, type Page } from '@playwright/test'
import { readFileSync } from 'node:fs'
import { carry, moveCut, toBench, watchForErrors } from '../support/brimble'
import { made } from '../support/makeRecordings'

/** Thursday, in whatever week: posts are planned into days before and after it. */
const NOW = new Date(2026, 10, 26, 12, 0)

async function finishedFile(page: Page): Promise<void> {
  await toBench(page, made('silent.mp4'), 'silent')
  await moveCut(page, 'Out point', -6)
  await page.getByRole('button', { name: 'Render', exact: true }).click()
  await page.getByRole('button', { name: /^Render 1 file/ }).click()
  await page.getByRole('link', { name: 'Outbox' }).click()
  await expect(page.locator('article[data-state=finished]')).toHaveCount(1, { timeout: 60_000 })
  await page.getByRole('link', { name: 'The week' }).click()
}

async function plan(page: Page, cell: string, title?: string): Promise<void> {
  await page.getByRole('button', { name: `Plan a post: ${cell}` }).click()
  if (title !== undefined) await page.getByRole('textbox', { name: 'Title' }).fill(title)
  await page.getByRole('button', { name: 'Plan it' }).click()
  await expect(page.getByRole('dialog')).toHaveCount(0)
}

async function standIn(page: Page, does: string): Promise<void> {
  // Choosing what is chosen already asks for nothing.
  if ((await page.getByLabel('The stand-in').textContent()) === does) return
  await page.getByLabel('The stand-in').click()
  const set = page.waitForResponse((r) => r.url().includes('/stand-in/') && r.request().method() === 'PUT')
  await page.getByRole('option', { name: does }).click()
  await set
}

const taken = (page: Page) =>
  page.evaluate(
    async () =>
      ((await (await fetch('/api/stand-in/outlet/posts')).json()) as { posts: { title: string; outlet: string }[] })
        .posts,
  )

test('a post is planned, moved by keyboard, sent when it is due, and not twice; what fails is told and tried again', async ({
  page,
}) => {
  const errors = watchForErrors(page)
  await page.clock.setSystemTime(NOW)
  await finishedFile(page)
  await standIn(page, 'takes everything')
  const before = (await taken(page)).length

  await plan(page, 'Story, Friday', 'To be moved')
  const card = page.getByRole('button', { name: /^To be moved, 18:00, planned/ })
  await card.focus()
  await carry(page, 'ArrowRight')
  await expect(
    page.getByRole('cell', { name: 'Story, Saturday' }).getByRole('button', { name: /^To be moved/ }),
  ).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(
    page.getByRole('cell', { name: 'Story, Friday' }).getByRole('button', { name: /^To be moved/ }),
  ).toBeVisible()

  // What lies in the past is due at once.
  await plan(page, 'Tall feed, Wednesday', 'Gone at once')
  await expect(page.getByRole('button', { name: /^Gone at once, 18:00, posted at/ })).toBeVisible()
  await page.reload()

  await standIn(page, 'refuses')
  await plan(page, 'Story, Tuesday', 'Refused')
  await expect(page.getByRole('button', { name: /^Refused.*the outlet refused it$/ })).toBeVisible()
  await standIn(page, 'takes everything')
  await page.getByRole('button', { name: /^Refused/ }).click()
  await expect(page.getByText('It said: “This video breaks a rule of this outlet.”')).toBeVisible()
  await page.getByRole('button', { name: 'Try again' }).click()
  await expect(page.getByRole('button', { name: /^Refused.*posted at/ })).toBeVisible()
  // What went out before the page was loaded again has not gone out once more with it.
  expect((await taken(page)).slice(before).map((p) => [p.title, p.outlet])).toEqual([
    ['Gone at once', 'Tall feed'],
    ['Refused', 'Story'],
  ])

  // Last, and not refused meanwhile: it is tried again after a minute, however slow the machine is.
  await standIn(page, 'cannot be reached')
  await plan(page, 'Tall feed, Tuesday', 'Offline first')
  await expect(page.getByRole('button', { name: /^Offline first.*could not be reached; again at/ })).toBeVisible()
  await expect(page.getByText(/Tall feed: “.*” goes there 2 times/)).toBeVisible()
  await standIn(page, 'takes everything')
  await page.clock.setSystemTime(new Date(NOW.getTime() + 600_000))
  await expect(page.getByRole('button', { name: /^Offline first.*posted at/ })).toBeVisible()
  errors.expectNone(/502|422/)
})

test('a plan is held to what an outlet takes, and goes out as a calendar and a table', async ({ page }) => {
  const errors = watchForErrors(page)
  await page.clock.setSystemTime(NOW)
  await finishedFile(page)
  await page.getByRole('button', { name: 'Plan a post: Square feed, Saturday' }).click()
  await page.getByRole('textbox', { name: 'Title' }).fill('x'.repeat(101))
  await expect(page.getByText('1 letters too many for Square feed')).toBeVisible()
  await expect(page.getByText('It is tall; Square feed shows square')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Plan it' })).toBeDisabled()
  await page.getByRole('textbox', { name: 'Title' }).fill('=Last gate, "no lift"')
  await page.getByRole('textbox', { name: 'Text', exact: true }).fill('Nine gates up;\nnone down.')
  await page.getByRole('button', { name: 'Plan it' }).click()
  const saved = async (button: string) => {
    const download = page.waitForEvent('download')
    await page.getByRole('button', { name: button }).click()
    return readFileSync(await (await download).path(), 'utf8')
  }
  const calendar = await saved('Calendar file')
  expect(calendar).toMatch(/^BEGIN:VCALENDAR\r\n/)
  expect(calendar).toContain(`DTSTART:${new Date(2026, 10, 28, 18).toISOString().replace(/[-:]|\.\d+/g, '')}`)
  expect(calendar.replace(/\r\n[ \t]/g, '')).toContain('DESCRIPTION:Nine gates up\\;\\nnone down.')
  expect(await saved('Table')).toContain(`"'=Last gate, ""no lift"""`)
  errors.expectNone()
})
