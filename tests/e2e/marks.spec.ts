import { expect, test, type Page } from '@playwright/test'
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { renderAndSave, steadyPicture, toDemoBench, untilKept, watchForErrors } from '../support/brimble'
import { ffmpeg, pixelAt } from '../support/ffmpeg'

const folder = mkdtempSync(join(tmpdir(), 'brimble-marks-'))

async function addMark(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name: 'Add overlay' }).click()
  await page.getByRole('menuitem', { name, exact: true }).click()
}

async function addPicture(page: Page, file: string): Promise<void> {
  await page.getByRole('button', { name: 'Add overlay' }).click()
  const chooser = page.waitForEvent('filechooser')
  await page.getByRole('menuitem', { name: 'Picture…' }).click()
  await (await chooser).setFiles(file)
}

const mark = (page: Page, name: RegExp) => page.locator('[data-mark]').and(page.getByRole('group', { name })).first()

/** A red square that turns blue after half a second, and so on. */
function blinkingGif(): string {
  const file = join(folder, 'blink.gif')
  ffmpeg(
    '-f',
    'lavfi',
    '-i',
    'color=c=red:s=64x64:r=2:d=0.5',
    '-f',
    'lavfi',
    '-i',
    'color=c=blue:s=64x64:r=2:d=0.5',
    '-filter_complex',
    'concat=n=2',
    '-loop',
    '0',
    file,
  )
  return file
}

test('marks are put on, moved by mouse and keys, timed, undone, and kept over a reload', async ({ page }) => {
  const errors = watchForErrors(page)
  await toDemoBench(page)
  await page.keyboard.press('3')
  await addMark(page, 'Handle')
  await page.getByRole('button', { name: 'More about Handle' }).click()
  await page.getByRole('textbox', { name: 'Handle', exact: true }).fill('heron ridge')
  await page.getByRole('textbox', { name: 'From', exact: true }).fill('2')
  await page.getByRole('textbox', { name: 'From', exact: true }).press('Enter')
  await page.keyboard.press('Escape')
  const handle = mark(page, /^Handle “heron ridge”/)
  // It is on from the third second: before that there is nothing to take hold of.
  await expect(handle).toHaveCount(0)
  for (let i = 0; i < 3; i++) await page.keyboard.press('Shift+ArrowRight')
  await expect(handle).toBeVisible()
  const before = await handle.boundingBox()
  if (!before) throw new Error('no handle')
  await page.mouse.move(before.x + 10, before.y + 5)
  await page.mouse.down()
  await page.mouse.move(before.x + 30, before.y + 45, { steps: 6 })
  await page.mouse.up()
  const after = await handle.boundingBox()
  expect(Math.abs((after?.y ?? 0) - before.y - 40)).toBeLessThan(9)
  await handle.focus()
  await page.keyboard.press('Shift+ArrowUp')
  const nudged = await handle.boundingBox()
  expect(nudged?.y).toBeLessThan(after?.y ?? 0)
  await page.keyboard.press('Control+z')
  await expect.poll(async () => (await handle.boundingBox())?.y).toBeCloseTo(after?.y ?? 0, 0)
  await page.keyboard.press('Control+z')
  await expect.poll(async () => (await handle.boundingBox())?.y).toBeCloseTo(before.y, 0)
  await page.keyboard.press('Control+Shift+z')
  await untilKept(page)
  await page.reload()
  await expect(page.getByText('Handle “heron ridge”')).toBeVisible()
  await page.getByRole('button', { name: 'Add overlay' }).focus()
  for (let i = 0; i < 3; i++) await page.keyboard.press('Shift+ArrowRight')
  await handle.focus()
  await page.keyboard.press('Delete')
  await expect(page.getByText('Handle “heron ridge”')).toHaveCount(0)
  errors.expectNone()
})

test('a title is typed where it stands; one that is left empty is gone', async ({ page }) => {
  const errors = watchForErrors(page)
  await toDemoBench(page)
  await page.keyboard.press('3')
  await page.getByRole('button', { name: 'Words', exact: true }).click()
  await page.getByRole('button', { name: 'Add title' }).click()
  await page.getByRole('textbox', { name: 'Title', exact: true }).fill('No lift')
  await page.keyboard.press('Escape')
  await page.getByRole('group', { name: 'Title “No lift”' }).first().dblclick()
  await page.getByRole('textbox', { name: 'Write the title' }).fill('No lift, last gate')
  await page.keyboard.press('Escape')
  await expect(page.getByRole('group', { name: 'Title “No lift, last gate”' })).toHaveCount(3)
  await page.getByRole('group', { name: 'Title “No lift, last gate”' }).first().focus()
  await page.keyboard.press('Enter')
  await page.keyboard.press('Control+a')
  await page.keyboard.press('Backspace')
  await page.keyboard.press('Escape')
  await expect(page.getByRole('group', { name: /^Title/ })).toHaveCount(0)
  errors.expectNone()
})

test('a picture that moves moves in the file, a drawing does nothing but look, and what is no picture is refused', async ({
  page,
}) => {
  test.setTimeout(240_000)
  const errors = watchForErrors(page)
  let asked = false
  page.on('dialog', (dialog) => ((asked = true), void dialog.dismiss()))
  await toDemoBench(page)
  await page.keyboard.press('3')
  for (const shape of ['portrait', 'square']) await page.getByRole('button', { name: shape, exact: true }).click()
  await addPicture(page, blinkingGif())
  await expect(mark(page, /^blink/)).toBeVisible()
  writeFileSync(
    join(folder, 'badge.svg'),
    '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 60 60"><script>alert(1)</script><style>@import "http://elsewhere.invalid/a.css";</style><rect width="60" height="60" fill="#00ff00" onload="alert(2)"/><image href="http://elsewhere.invalid/x.png" width="9" height="9"/><foreignObject><b>hm</b></foreignObject></svg>',
  )
  await addPicture(page, join(folder, 'badge.svg'))
  const badge = mark(page, /^badge/)
  await expect(badge).toBeVisible()
  await badge.focus()
  for (let i = 0; i < 20; i++) await page.keyboard.press('Shift+ArrowDown')
  writeFileSync(join(folder, 'nothing.png'), 'no picture')
  await addPicture(page, join(folder, 'nothing.png'))
  await expect(page.getByText(/“nothing.png” is not a picture/)).toBeVisible()
  // Two seconds are enough to see it change.
  await page.getByRole('heading', { name: 'Sheet' }).click()
  await page.keyboard.press('Home')
  for (let i = 0; i < 2; i++) await page.keyboard.press('Shift+ArrowRight')
  await page.keyboard.press('o')
  const { path } = await renderAndSave(page, { rate: '30 fps' })
  // The first picture hangs in the middle of the left edge, a little above it: 0.05 of the width in, 0.18 of it wide.
  const colourAt = (seconds: number) => pixelAt(path, seconds, 150, 790)
  const isRed = ([r, , b]: readonly number[]) => (r ?? 0) > 150 && (b ?? 0) < 100
  const isBlue = ([r, , b]: readonly number[]) => (b ?? 0) > 150 && (r ?? 0) < 100
  expect([0.1, 1.1].map(colourAt).every(isRed)).toBe(true)
  expect([0.6, 1.6].map(colourAt).every(isBlue)).toBe(true)
  const [r, g, b] = pixelAt(path, 0.5, 150, 790 + 400)
  expect(g, `${r} ${g} ${b}`).toBeGreaterThan(200)
  expect(asked).toBe(false)
  // The browser says that it has refused the drawing's handler.
  errors.expectNone(/Executing inline event handler violates/)
})

test('a font of one’s own is drawn with, and travels with the brand that uses it', async ({ page }) => {
  const errors = watchForErrors(page)
  await toDemoBench(page)
  writeFileSync(
    join(folder, 'Ridge_Hand.woff2'),
    readFileSync('node_modules/@fontsource/anton/files/anton-latin-400-normal.woff2'),
  )
  writeFileSync(join(folder, 'broken.ttf'), 'no font')
  await page.keyboard.press('3')
  await page.getByRole('button', { name: 'Words', exact: true }).click()
  const words = page.getByRole('dialog', { name: 'Words' })
  const tall = page.getByTestId('shape-tall')
  await page.getByRole('button', { name: 'Add title' }).click()
  await page.getByRole('textbox', { name: 'Title', exact: true }).fill('No lift, last gate')
  const title = words.getByRole('group', { name: 'Title', exact: true })
  await title.getByRole('button', { name: /^More about the look/ }).click()
  await title.getByLabel('A font file').setInputFiles(join(folder, 'broken.ttf'))
  await expect(page.getByText(/“broken.ttf” is not a font/)).toBeVisible()
  const before = await steadyPicture(tall)
  await title.getByLabel('A font file').setInputFiles(join(folder, 'Ridge_Hand.woff2'))
  await expect(title.getByRole('combobox', { name: 'Font' })).toHaveText('Ridge Hand')
  await expect.poll(async () => (await tall.screenshot()).equals(before)).toBe(false)
  await page.keyboard.press('Escape')
  await untilKept(page)
  // After a reload it is drawn with it again, and a brand can have it.
  await page.reload()
  await expect(tall).toBeVisible()
  await page.getByRole('link', { name: 'Rack' }).click()
  await page.getByRole('button', { name: /^New brand/ }).click()
  await page.getByRole('combobox', { name: 'Font of titles' }).click()
  await page.getByRole('option', { name: 'Ridge Hand' }).click()
  await page.getByRole('button', { name: 'Make brand' }).click()
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Export New brand' }).click()
  const file = JSON.parse(readFileSync(await (await download).path(), 'utf8')) as {
    fontFiles: { id: string; name: string }[]
    bytes: Record<string, { type: string; base64: string }>
  }
  expect(file.fontFiles.map((f) => f.name)).toEqual(['Ridge Hand'])
  const bytes = file.bytes[file.fontFiles[0]?.id ?? '']
  expect(bytes?.type).toBe('font/woff2')
  expect(Buffer.from(bytes?.base64 ?? '', 'base64').equals(readFileSync(join(folder, 'Ridge_Hand.woff2')))).toBe(true)
  // The browser says why it has refused the broken one.
  errors.expectNone(/OTS parsing error/)
})
