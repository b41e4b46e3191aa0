import { expect, test, type Page } from '@playwright/test'
import { readFileSync } from 'node:fs'
import { toBench, watchForErrors } from '../support/brimble'
import { made } from '../support/makeRecordings'

/** What has the focus, as a screen reader would name it. */
const focused = (page: Page) =>
  page.evaluate(() => {
    const element = document.activeElement
    return (element?.getAttribute('aria-label') ?? element?.textContent ?? '').trim()
  })

/** Tabs until something of this name has the focus. */
async function tabTo(page: Page, name: RegExp, most = 120): Promise<void> {
  for (let i = 0; i < most; i++) {
    await page.keyboard.press('Tab')
    if (name.test(await focused(page))) return
  }
  throw new Error(`${String(name)} is not reached with Tab`)
}

const pressTimes = async (page: Page, key: string, times: number) => {
  for (let i = 0; i < times; i++) await page.keyboard.press(key)
}

test('by keyboard alone: a moment found, cut, trimmed, struck, joined and rendered', async ({ page }) => {
  test.setTimeout(180_000)
  const errors = watchForErrors(page)
  await page.goto('/?demo')
  await expect(page.getByRole('link', { name: /^The tea tent/ })).toBeVisible({ timeout: 60_000 })
  await tabTo(page, /^Find moments in Open day call/)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('img', { name: /^The magnified stretch/ })).toBeVisible()
  await expect(page.getByRole('status')).toHaveCount(0, { timeout: 60_000 })
  await page.keyboard.press('Enter')
  await page.keyboard.press('k')
  await page.keyboard.press('y')
  await page.keyboard.press('Control+Enter')
  await tabTo(page, /^Open it$/)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('img', { name: 'Result, tall' })).toBeVisible()
  const out = page.getByRole('slider', { name: /^Out point/ })
  await expect(out).toBeVisible()

  await tabTo(page, /^Out point/)
  const before = Number(await out.getAttribute('aria-valuenow'))
  await pressTimes(page, 'Shift+ArrowUp', 1)
  expect(Number(await out.getAttribute('aria-valuenow'))).toBeCloseTo(before - 1, 1)
  await page.keyboard.press('Escape')
  await page.keyboard.press('Home')
  await pressTimes(page, 'Shift+ArrowRight', 1)
  await page.keyboard.press('s')
  await pressTimes(page, 'ArrowRight', 5)
  await page.keyboard.press(',')
  await pressTimes(page, 'ArrowRight', 10)
  await page.keyboard.press('.')
  await page.keyboard.press('x')
  await expect(page.getByRole('button', { name: /^Restore/ })).toHaveCount(1)
  await tabTo(page, /^Join of passages 1 and 2/)
  await page.keyboard.press('Enter')
  await tabTo(page, /^dissolve$/, 12)
  await page.keyboard.press('Enter')
  await page.keyboard.press('Escape')
  await expect(page.getByRole('button', { name: /^Join of passages 1 and 2: dissolve/ })).toBeVisible()
  await tabTo(page, /^Face: |^Speaker: |^\w+: \d+ × \d+ at/)
  const region = await focused(page)
  await page.keyboard.press('ArrowRight')
  await expect.poll(() => focused(page)).not.toBe(region)
  await page.keyboard.press('Control+z')
  await expect.poll(() => focused(page)).toBe(region)

  await page.keyboard.press('Control+Enter')
  await tabTo(page, /^Render \d files?$/, 15)
  await page.keyboard.press('Enter')
  await tabTo(page, /^Outbox$/)
  await page.keyboard.press('Enter')
  await expect(page.locator('article[data-state="finished"]').first()).toBeVisible({ timeout: 90_000 })
  await tabTo(page, /^Play$/)
  await page.keyboard.press('Enter')
  await expect(page.locator('aside video')).toBeVisible()
  errors.expectNone()
})

test('by mouse alone: split, a stretch marked and struck, an edge dragged, a join, speed, a render', async ({
  page,
}) => {
  test.setTimeout(180_000)
  const errors = watchForErrors(page)
  await toBench(page, made('silent.mp4'), 'silent')
  const rows = page.getByTestId('sheet-rows')
  const row = async (n: number) => {
    const box = await rows.boundingBox()
    if (!box) throw new Error('no Sheet')
    return { left: box.x + 20, middle: box.x + 120, y: box.y + 50 + n * 56 }
  }
  const length = () => page.getByTestId('clock').locator('..').innerText()
  const [from, to] = [await row(2), await row(4)]
  await page.mouse.move(from.left, from.y)
  await page.mouse.down()
  await page.mouse.move(to.left, to.y, { steps: 6 })
  await page.mouse.up()
  await expect(page.getByTestId('marked-stretch')).toBeVisible()
  const whole = await length()
  await page.getByRole('button', { name: 'Strike out' }).click()
  await expect(page.getByRole('button', { name: /^Restore/ })).toHaveCount(1)
  await expect.poll(length).not.toBe(whole)
  await page.mouse.click((await row(1)).middle, (await row(1)).y)
  await page.getByRole('button', { name: 'Split' }).click()
  await expect(page.getByRole('group', { name: /^Passage 2 of 2/ })).toBeVisible()
  await page.getByRole('button', { name: /^Join of passages 1 and 2/ }).click()
  await page.getByRole('button', { name: 'slide', exact: true }).click()
  await page.mouse.click(640, 20)
  await page.getByRole('button', { name: 'Settings of passage 1' }).click()
  await page.getByRole('button', { name: 'Duplicate' }).click()
  await expect(page.getByRole('group', { name: /^Passage 3 of 3/ })).toHaveCount(1)
  await page.getByRole('button', { name: 'Undo' }).click()
  const edge = await page.getByRole('slider', { name: 'Out point, passage 1' }).boundingBox()
  if (!edge) throw new Error('no edge')
  const was = await length()
  await page.mouse.move(edge.x + 150, edge.y + 8)
  await page.mouse.down()
  await page.mouse.move(edge.x + 150, edge.y - 20, { steps: 5 })
  await page.mouse.up()
  await expect.poll(length).not.toBe(was)
  await page.getByRole('button', { name: 'Render', exact: true }).click()
  await page.getByRole('button', { name: 'Render 1 file' }).click()
  await page.getByRole('link', { name: 'Outbox' }).click()
  await expect(page.locator('article[data-state="finished"]').first()).toBeVisible({ timeout: 90_000 })
  errors.expectNone()
})

test('a recording dropped onto the Sheet is the next passage; one that cannot be used says why and leaves all as it was', async ({
  page,
}) => {
  await toBench(page, made('silent.mp4'), 'silent')
  const drop = async (name: string) => {
    const bytes = readFileSync(made(name)).toString('base64')
    const transfer = await page.evaluateHandle(
      ([file, data]) => {
        const transfer = new DataTransfer()
        transfer.items.add(
          new File([Uint8Array.from(atob(data), (c) => c.charCodeAt(0))], file, { type: 'video/webm' }),
        )
        return transfer
      },
      [name, bytes] as const,
    )
    await page.getByTestId('sheet-rows').dispatchEvent('drop', { dataTransfer: transfer })
  }
  await drop('notes.mp4')
  await expect(page.getByText('“notes.mp4” is not a video that Brimble can read.')).toBeVisible()
  await expect(page.getByRole('group', { name: /^Passage 1 of 1/ })).toBeVisible()
  await drop('vp9.webm')
  await expect(page.getByRole('group', { name: 'Passage 2 of 2, vp9' })).toHaveCount(1)
})
