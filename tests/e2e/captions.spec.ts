import { expect, test, type Page } from '@playwright/test'
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { choosePlainly, watchForErrors } from '../support/brimble'
import { ffmpeg, ssim } from '../support/ffmpeg'

const DEMO = 'public/demo/ridge-cup-stream.vtt'

async function toDemoBench(page: Page): Promise<void> {
  await choosePlainly(page)
  await page.goto('/')
  await page.getByRole('button', { name: 'Open the demo shelf' }).first().click()
  await page.getByRole('link', { name: /^Last gate, no lift/ }).click()
  await expect(page.getByRole('img', { name: 'Result, tall' })).toBeVisible()
}

async function readFile(page: Page, path: string): Promise<void> {
  await page.getByRole('button', { name: 'Captions', exact: true }).click()
  const chooser = page.waitForEvent('filechooser')
  await page.getByRole('menuitem', { name: /^Read WebVTT/ }).click()
  await (await chooser).setFiles(path)
}

const captions = (page: Page) => page.getByRole('textbox', { name: /^Caption/ })
const caption = (page: Page, text: string) => captions(page).and(page.locator(`:text-is("${text}")`))

test('captions are read, corrected by keyboard alone, undone, kept over a reload and written again', async ({ page }) => {
  const errors = watchForErrors(page)
  await toDemoBench(page)
  await readFile(page, DEMO)
  const first = caption(page, 'And that is the last gate before the ridge, stay low, stay low.')
  await expect(first).toBeVisible()
  await page.keyboard.press('1')
  // Enter splits where the caret is; the second part has the caret at its start, and Backspace joins them again.
  await first.focus()
  await page.keyboard.press('Home')
  for (let i = 0; i < 'And that is the last gate before the ridge,'.length; i++) await page.keyboard.press('ArrowRight')
  await page.keyboard.press('Enter')
  await expect(caption(page, 'And that is the last gate before the ridge,')).toBeVisible()
  // A split is undone and made again from inside the text.
  await page.keyboard.press('Control+z')
  await expect(first).toBeFocused()
  await page.keyboard.press('Control+Shift+z')
  await caption(page, 'stay low, stay low.').focus()
  await page.keyboard.press('Home')
  await expect(caption(page, 'stay low, stay low.')).toBeFocused()
  await page.keyboard.press('Backspace')
  await expect(first).toBeFocused()
  // Arrows lead to the next line, and the playhead goes along.
  await page.keyboard.press('End')
  await page.keyboard.press('ArrowDown')
  await expect(caption(page, 'Oh! The lift is right here!')).toBeFocused()
  await expect(page.getByTestId('clock')).toHaveText('0:06.40')
  await page.keyboard.press('End')
  await page.keyboard.type(' Hold on.')
  const corrected = caption(page, 'Oh! The lift is right here! Hold on.')
  await expect(corrected).toBeVisible()
  await page.keyboard.press('Control+z')
  await expect(corrected).toHaveCount(0)
  await page.keyboard.press('Control+Shift+z')
  await expect(corrected).toBeVisible()
  // Alt and arrows move its start: with the next, the file that is written says so.
  await page.keyboard.press('Alt+ArrowDown')
  await page.keyboard.press('Alt+ArrowDown')
  await page.keyboard.press('Escape')
  await expect(page.getByText('Saving')).toHaveCount(0)
  await page.waitForTimeout(600)
  await page.reload()
  await expect(corrected).toBeVisible()
  await page.getByRole('button', { name: 'Captions', exact: true }).click()
  const download = page.waitForEvent('download')
  await page.getByRole('menuitem', { name: 'Save as WebVTT' }).click()
  const written = readFileSync(await (await download).path(), 'utf8')
  expect(written).toContain('00:00:06.500 --> 00:00:07.960\n<v Wren>Oh! The lift is right here! Hold on.')
  errors.expectNone()
})

test('a file that holds no captions changes nothing and says so; one with faults is read and told of by line', async ({ page }) => {
  const errors = watchForErrors(page)
  await toDemoBench(page)
  const folder = mkdtempSync(join(tmpdir(), 'brimble-vtt-'))
  writeFileSync(join(folder, 'list.srt'), 'bread, rope, tea')
  await readFile(page, join(folder, 'list.srt'))
  await expect(page.getByText(/There are no captions in “list.srt”/)).toBeVisible()
  await expect(captions(page)).toHaveCount(0)
  writeFileSync(join(folder, 'faults.vtt'), 'WEBVTT\n\n00:12.000 --> 00:11.000\nbackwards\n\n00:11.000 --> 00:13.000\n<img src=x onerror=alert(1)>Kept\n')
  await readFile(page, join(folder, 'faults.vtt'))
  await expect(page.getByRole('listitem').filter({ hasText: 'Line 3: ends before it starts' })).toBeVisible()
  await page.getByRole('button', { name: 'Good' }).click()
  await expect(caption(page, 'Kept')).toBeVisible()
  errors.expectNone()
})

test('speech is found by ear, and a pasted text lies where it is spoken', async ({ page }) => {
  test.setTimeout(240_000)
  await toDemoBench(page)
  const script = readFileSync(DEMO, 'utf8')
  const known = [...script.matchAll(/00:00:(\d+\.\d+) --> 00:00:(\d+\.\d+)\n<v Wren>(.+)/g)].map(([, from, to, text]) => ({ from: Number(from), to: Number(to), text: text ?? '' }))
  const here = known.filter((k) => k.to > 10.5 && k.from < 24.5)
  expect(here.length).toBeGreaterThan(3)
  await page.getByRole('button', { name: 'Captions', exact: true }).click()
  await page.getByRole('menuitem', { name: 'Empty lines where somebody speaks' }).click()
  await expect(captions(page).first()).toBeVisible({ timeout: 90_000 })
  await page.getByRole('button', { name: 'Captions', exact: true }).click()
  await page.getByRole('menuitem', { name: 'Paste what is said…' }).click()
  await page.getByRole('textbox', { name: 'Text' }).fill(here.map((k) => k.text).join(' '))
  await page.getByRole('button', { name: 'Line up' }).click()
  await expect(caption(page, here[0]?.text ?? '')).toBeVisible({ timeout: 90_000 })
  await page.getByRole('button', { name: 'Captions', exact: true }).click()
  const download = page.waitForEvent('download')
  await page.getByRole('menuitem', { name: 'Save as WebVTT' }).click()
  const written = readFileSync(await (await download).path(), 'utf8')
  for (const { from, text } of here) {
    const [, start = 'none'] = new RegExp(`00:00:(\\d+\\.\\d+) --> [\\d:.]+\\n${text.replace(/[.?!]/g, '\\$&')}`).exec(written) ?? []
    expect(Math.abs(Number(start) - Math.max(0, from - 10.5)), text).toBeLessThan(0.3)
  }
})

test('words in the picture: what is seen is what is written, in three shapes', async ({ page }) => {
  test.setTimeout(240_000)
  const errors = watchForErrors(page)
  await page.setViewportSize({ width: 2560, height: 1600 })
  await toDemoBench(page)
  await readFile(page, DEMO)
  await page.keyboard.press('3')
  await page.getByRole('button', { name: 'Words', exact: true }).click()
  await page.getByRole('textbox', { name: 'Title' }).fill('No lift, last gate')
  await page.getByRole('button', { name: 'Banner' }).click()
  await page.getByRole('button', { name: 'Tagged' }).click()
  await page.keyboard.press('Escape')
  // Ten frames of the stream at 60, five of the files at 30; the fourth of these is looked at.
  await page.keyboard.press('Home')
  await page.keyboard.press('Shift+ArrowRight')
  await page.keyboard.press('i')
  for (let i = 0; i < 10; i++) await page.keyboard.press('ArrowRight')
  await page.keyboard.press('o')
  await page.getByRole('button', { name: 'Render', exact: true }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('Frame rate').click()
  await page.getByRole('option', { name: '30 fps', exact: true }).click()
  await dialog.getByRole('button', { name: 'Render 3 files' }).click()
  await expect(page.getByRole('link', { name: '3 files ready' })).toBeVisible({ timeout: 120_000 })
  await page.getByRole('link', { name: 'Outbox' }).click()
  const folder = mkdtempSync(join(tmpdir(), 'brimble-words-'))
  for (const shape of ['tall', 'portrait', 'square']) {
    const download = page.waitForEvent('download')
    await page.locator('article[data-state="finished"]').filter({ hasText: shape }).getByRole('button', { name: 'Save' }).click()
    await (await download).saveAs(join(folder, `${shape}.mp4`))
    ffmpeg('-i', join(folder, `${shape}.mp4`), '-vf', "select='eq(n,3)'", '-frames:v', '1', join(folder, `${shape}.png`))
  }
  await page.goBack()
  await expect(page.getByRole('img', { name: 'Result, tall' })).toBeVisible()
  await page.keyboard.press('h')
  await page.keyboard.press('Home')
  for (let i = 0; i < 6; i++) await page.keyboard.press('ArrowRight')
  for (const shape of ['tall', 'portrait', 'square']) {
    await page.getByRole('button', { name: `See ${shape} as large as can be` }).click()
    const likeness = async () => {
      const seen = await page.getByRole('img', { name: `Result, ${shape}` }).screenshot()
      writeFileSync(join(folder, 'seen.png'), seen)
      return ssim(join(folder, 'seen.png'), ['-i', join(folder, `${shape}.png`)], `[1:v]scale=${seen.readUInt32BE(16)}:${seen.readUInt32BE(20)}:flags=area[ref]`)
    }
    await expect.poll(likeness, { message: shape, timeout: 10_000 }).toBeGreaterThan(0.98)
    await page.getByRole('button', { name: 'Back to all shapes' }).click()
  }
  errors.expectNone()
})
