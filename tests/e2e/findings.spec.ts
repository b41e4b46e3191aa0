import { expect, test } from '@playwright/test'
import { spawnSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { findingsReport } from '@/core/findings/report'
import { keepToRule, renderAndSave, SMALL, toDemoBench, untilKept, watchForErrors } from '../support/brimble'

test('what is wrong is found with its number, shown where it is, put right in one action, undone, or meant so', async ({
  page,
}) => {
  const errors = watchForErrors(page)
  await toDemoBench(page)
  await keepToRule(page)
  // The game’s crop is drawn wider than it should be: the facecam is in it as well.
  const gauge = page.getByRole('button', { name: /^found / })
  await expect(gauge).toBeVisible()
  const left = page.getByLabel('Game left', { exact: true })
  const width = page.getByLabel('Game width', { exact: true })
  await width.fill('1100')
  await width.press('Enter')
  await left.fill('800')
  await left.press('Enter')
  await expect(gauge).toHaveAttribute('data-stale', 'false')
  await gauge.click()
  const list = page.getByRole('list', { name: 'Findings' })
  const twice = list.getByRole('listitem').filter({ hasText: 'Face also shows in' })
  await expect(twice).toHaveCount(3)
  const inTall = twice.filter({ hasText: 'tall' })
  await expect(inTall).toHaveText(/Game \(\d+ %\)/)
  await inTall.getByRole('button', { name: /also shows in/ }).click()
  await expect(page.getByTestId('shape-tall').getByTestId('pointed-at')).toBeVisible()
  await inTall.getByRole('button', { name: 'Move the crop' }).click()
  await expect(twice).toHaveCount(2)
  await page.getByRole('button', { name: 'Fix all' }).click()
  await expect(twice).toHaveCount(0)
  await page.keyboard.press('Escape')
  await page.keyboard.press('Control+z')
  await gauge.click()
  await expect(twice).toHaveCount(2)
  const soft = list.getByRole('listitem').filter({ hasText: 'Face is enlarged' }).filter({ hasText: 'tall' })
  await expect(soft).toHaveText(/enlarged 2\.25×/)
  await soft.getByRole('button', { name: 'Ignore' }).click()
  await expect(soft).toHaveCount(0)
  await page.keyboard.press('Escape')
  await untilKept(page)
  await page.reload()
  await expect(gauge).toHaveAttribute('data-stale', 'false')
  await gauge.click()
  await expect(twice).toHaveCount(2)
  await expect(soft).toHaveCount(0)
  errors.expectNone()
})

test('an outlet’s limits and zones are looked at when it is chosen', async ({ page }) => {
  const errors = watchForErrors(page)
  await toDemoBench(page)
  const gauge = page.getByRole('button', { name: /^found / })
  await expect(gauge).toHaveAttribute('data-stale', 'false')
  await page.getByRole('combobox', { name: 'Zones of an outlet' }).click()
  await page.getByRole('option', { name: 'Story' }).click()
  await page.getByRole('button', { name: 'Words', exact: true }).click()
  await page.getByRole('button', { name: 'Add title' }).click()
  await page.getByRole('textbox', { name: 'Title', exact: true }).fill('No lift, last gate')
  await page.keyboard.press('Escape')
  await expect(gauge).toHaveAttribute('data-stale', 'false')
  await gauge.click()
  const list = page.getByRole('list', { name: 'Findings' })
  await expect(list.getByText(/^Face: 3\d % under “Name”$/)).toBeVisible()
  // The title's area reaches under it; its words do not.
  await expect(list.getByText(/^Title: /)).toHaveCount(0)
  errors.expectNone()
})

test('what is too quiet is brought to the usual loudness, and the file is as loud as was said', async ({ page }) => {
  test.setTimeout(240_000)
  const errors = watchForErrors(page)
  await toDemoBench(page)
  for (const shape of ['portrait', 'square']) await page.getByRole('button', { name: shape, exact: true }).click()
  const gauge = page.getByRole('button', { name: /^found / })
  await expect(gauge).toHaveAttribute('data-stale', 'false')
  await gauge.click()
  const quiet = page.getByRole('list', { name: 'Findings' }).getByRole('listitem').filter({ hasText: 'Too quiet' })
  await expect(quiet).toHaveCount(1)
  const said = Number(/(-[\d.]+) LUFS/.exec((await quiet.textContent()) ?? '')?.[1])
  const gain = Number(/\+([\d.]+) dB/.exec((await quiet.textContent()) ?? '')?.[1])
  expect(gain).toBeGreaterThan(1)
  await quiet.getByRole('button', { name: /^\+.* dB/ }).click()
  await page.keyboard.press('Escape')
  await expect(gauge).toHaveAttribute('data-stale', 'false')
  await page.getByRole('button', { name: /^loudness / }).click()
  await expect(
    page.getByRole('img', { name: /^Loudness over time, -[\d.]+ LUFS in all, -[\d.]+ LUFS before$/ }),
  ).toBeVisible()
  await page.keyboard.press('Escape')
  const { path } = await renderAndSave(page, { rate: '30 fps', size: SMALL })
  const { stderr } = spawnSync('ffmpeg', ['-nostats', '-i', path, '-af', 'ebur128=peak=true', '-f', 'null', '-'])
  const summary = stderr.toString().split('Summary:')[1] ?? ''
  const written = Number(/I:\s+(-[\d.]+) LUFS/.exec(summary)?.[1])
  // Peaks are held where the gain would bring them over; what is coded is a little off.
  expect(Number(/Peak:\s+(-?[\d.]+) dBFS/.exec(summary)?.[1])).toBeLessThan(-0.5)
  // What AAC makes of it is a little off.
  expect(Math.abs(written - (said + gain)), `${said} and ${gain} dB more came to ${written} LUFS`).toBeLessThan(0.4)
  errors.expectNone()
})

test('what the demo shelf has planted is found: the face that is there twice, the border, the lean out of the picture; put right, listed, compared, told in a report', async ({
  page,
}) => {
  test.setTimeout(180_000)
  const errors = watchForErrors(page)
  await toDemoBench(page)
  // The contact sheet finds it too, with nobody on the Bench.
  await page.getByRole('link', { name: 'Outbox' }).click()
  await page.getByRole('link', { name: 'Contact sheet' }).click()
  const card = page.getByRole('list', { name: 'Highlights' }).getByRole('listitem', { name: 'The radio is calling' })
  await expect(card.getByTitle(/Face is not inside its region 3\d % of the time/)).toBeVisible({ timeout: 90_000 })
  await page.getByRole('link', { name: 'Shelf' }).click()
  await page.getByRole('link', { name: /^The radio is calling/ }).click()
  const gauge = page.getByRole('button', { name: /^found / })
  // By itself the crop would leave the face out.
  await keepToRule(page)
  await gauge.click()
  const list = page.getByRole('list', { name: 'Findings' })
  const line = (text: string | RegExp) => list.getByRole('listitem').filter({ hasText: text })
  await expect(line('Face also shows in')).toHaveText(/Game \(38 %\)/)
  // Looking along and at borders takes its time, in the background.
  await expect(line('is not inside its region')).toHaveText(/3\d % of the time/, { timeout: 90_000 })
  await expect(line('px of border')).toHaveText(/[45] px of border or black along an edge of face/, { timeout: 60_000 })
  await expect(page.getByTestId('found-on-sheet').first()).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(page.getByTestId('shape-tall').getByTestId('found-in-shape').first()).toBeVisible()

  const saved = async (button: string) => {
    const download = page.waitForEvent('download')
    await page.getByRole('button', { name: button }).click()
    return readFileSync(await (await download).path(), 'utf8')
  }
  await gauge.click()
  const report = findingsReport.parse(JSON.parse(await saved('Save as JSON')))
  expect(report.highlight).toMatchObject({ name: 'The radio is calling', lengthSeconds: 7.6 })
  const leaves = report.findings.find((f) => f.fault.kind === 'leaves-region')
  // The script has the lean from 25.4 to 28.6 s of the recording, 3.0 to 6.2 s here.
  expect(Math.abs((leaves?.fromSeconds ?? 0) - 3)).toBeLessThan(0.6)
  expect(Math.abs((leaves?.toSeconds ?? 0) - 6.2)).toBeLessThan(0.6)
  const html = await saved('Save as page')
  expect(html).toContain('Face also shows in Game (38 %)')
  expect(html.match(/<img src="data:image\/webp/g)).toHaveLength(1)

  await page.getByRole('button', { name: 'Fix all' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'fixed, in one undo step' })).toContainText(
    'Face also shows in Game (38 %), tall: move the crop',
  )
  await expect(line('Face also shows in')).toHaveCount(0)
  await expect(line('px of border')).toHaveCount(0, { timeout: 20_000 })
  await page.keyboard.press('Escape')

  await page.getByRole('button', { name: 'Compare', exact: true }).click()
  const dialog = page.getByRole('dialog', { name: 'Compare' })
  await expect(dialog.getByRole('img', { name: /^Ridge Cup, heat 3/ })).toBeVisible()
  await expect(dialog.getByRole('img', { name: 'Result', exact: true })).toBeVisible()
  await dialog.getByRole('tab', { name: 'Before and after' }).click()
  const pictureOf = async (name: string) => {
    await expect(dialog.locator('figure[data-state="drawn"]')).toHaveCount(2)
    return dialog
      .getByRole('img', { name })
      .evaluate(async (img: HTMLImageElement) => (await (await fetch(img.src)).arrayBuffer()).byteLength)
  }
  expect(await pictureOf('Before “Fix all”')).not.toBe(await pictureOf('After it'))
  await dialog.getByRole('tab', { name: 'Start, middle, end' }).click()
  await expect(dialog.locator('figure[data-state="drawn"]')).toHaveCount(3)
  await dialog.getByRole('tab', { name: 'File and preview' }).click()
  await expect(dialog.getByText('No file of this shape is finished yet')).toBeVisible()
  await dialog.getByRole('button', { name: 'Close' }).click()
  await page.keyboard.press('Control+z')
  await gauge.click()
  await expect(line('Face also shows in')).toHaveCount(1)
  errors.expectNone()
})

test('a panel’s picture is moved clear of a face by its own action, in every shape at once', async ({ page }) => {
  await toDemoBench(page)
  await keepToRule(page)
  const gauge = page.getByRole('button', { name: /^found / })
  await expect(gauge).toBeVisible()
  for (const [name, value] of [
    ['Game width', '1100'],
    ['Game left', '800'],
  ] as const) {
    const field = page.getByLabel(name, { exact: true })
    await field.fill(value)
    await field.press('Enter')
  }
  const twice = page.getByRole('listitem').filter({ hasText: 'Face also shows in' })
  const look = async (count: number) => {
    await expect(gauge).toHaveAttribute('data-stale', 'false')
    await gauge.click()
    await expect(twice).toHaveCount(count)
    await page.keyboard.press('Escape')
  }
  await look(3)
  await page.getByRole('button', { name: 'More about band 2' }).click()
  await page.getByRole('button', { name: 'Move clear of faces' }).click()
  await look(0)
  await page.keyboard.press('Control+z')
  await look(3)
})
