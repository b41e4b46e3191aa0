import { expect, test, type Locator, type Page } from '@playwright/test'
import { readFileSync } from 'node:fs'
import { addFiles, choosePlainly, renderAndSave, SMALL, toBench, watchForErrors } from '../support/brimble'
import { inDatabase } from '../support/inDatabase.mjs'
import { made } from '../support/makeRecordings'
import { run } from '../support/ffmpeg'

/** Drops a file on the middle of an element, as the system would. */
async function drop(page: Page, target: Locator, path: string, name: string): Promise<void> {
  const base64 = readFileSync(path).toString('base64')
  const transfer = await page.evaluateHandle(
    ({ base64, name }) => {
      const data = new DataTransfer()
      data.items.add(new File([Uint8Array.from(atob(base64), (c) => c.charCodeAt(0))], name, { type: 'video/mp4' }))
      return data
    },
    { base64, name },
  )
  for (const event of ['dragenter', 'dragover', 'drop']) await target.dispatchEvent(event, { dataTransfer: transfer })
}

test('a file is taken wherever it is dropped, and never takes the place of the application', async ({ page }) => {
  await toBench(page, made('silent.mp4'), 'silent')
  await drop(page, page.getByTestId('frame-picture'), made('numbered.mp4'), 'on the frame.mp4')
  await drop(page, page.getByTestId('shape-tall'), made('numbered.mp4'), 'on the shapes.mp4')
  await drop(page, page.getByRole('banner'), made('numbered.mp4'), 'on the header.mp4')
  for (const screen of ['Rack', 'Outbox']) {
    await page.getByRole('link', { name: screen, exact: true }).click()
    await drop(page, page.getByRole('main'), made('numbered.mp4'), `on the ${screen}.mp4`)
    await expect(page.getByText('One recording is on the Shelf now.').last()).toBeVisible()
  }
  await page.getByRole('link', { name: 'Shelf', exact: true }).click()
  for (const name of ['on the frame', 'on the shapes', 'on the header', 'on the Rack', 'on the Outbox'])
    await expect(page.getByRole('article', { name })).toBeVisible()
})

test('a press inside a locked region draws nothing over it; drags mark no text; widths stay under the pointer; nothing scrolls sideways', async ({
  page,
}) => {
  await toBench(page, made('pattern.mp4'), 'pattern')
  const regions = page.locator('[data-testid=frame-picture] [data-role]')
  await expect(regions).toHaveCount(2)
  await page.getByRole('button', { name: 'More about Game' }).click()
  await page.getByRole('checkbox', { name: 'Locked' }).check()
  await page.keyboard.press('Escape')
  const game = await page.locator('[data-testid=frame-picture] [data-role=game]').boundingBox()
  if (!game) throw new Error('no region')
  await page.mouse.move(game.x + 20, game.y + 20)
  await page.mouse.down()
  await page.mouse.move(game.x + 120, game.y + 100, { steps: 5 })
  await page.mouse.up()
  await expect(regions).toHaveCount(2)

  const face = await page.locator('[data-testid=frame-picture] [data-role=face]').boundingBox()
  if (!face) throw new Error('no region')
  await page.mouse.move(face.x + face.width / 2, face.y + face.height / 2)
  await page.mouse.down()
  await page.mouse.move(game.x, game.y, { steps: 8 })
  expect(await page.evaluate(() => getSelection()?.toString())).toBe('')
  await page.mouse.up()

  const widths = () =>
    page.evaluate(() =>
      [...document.querySelectorAll('main > section')].map((s) => Math.round(s.getBoundingClientRect().width)),
    )
  const before = await widths()
  await page.getByRole('button', { name: 'Settings of passage 1' }).click()
  await page.keyboard.press('Escape')
  await page.getByTestId('shape-tall').click({ position: { x: 30, y: 200 } })
  expect(await widths()).toEqual(before)
  await page.getByRole('region', { name: 'Shapes' }).getByRole('button', { name: 'Shapes', exact: true }).click()
  await expect.poll(widths).not.toEqual(before)

  await page.keyboard.press('End')
  const sideways = () =>
    page.evaluate(() =>
      [...document.querySelectorAll('main *')]
        .filter(
          (e) =>
            ['auto', 'scroll'].includes(getComputedStyle(e).overflowX) &&
            e.scrollWidth > e.clientWidth + 1 &&
            getComputedStyle(e).overflowY !== 'visible',
        )
        .map((e) => e.className),
    )
  await expect.poll(sideways).toEqual([])
})

test('what was chosen for a render is there the next time, however the dialog was left', async ({ page }) => {
  await toBench(page, made('silent.mp4'), 'silent')
  await page.getByRole('button', { name: 'Render', exact: true }).click()
  const dialog = page.getByRole('dialog', { name: /^Render/ })
  await dialog.getByLabel('Frame rate').click()
  await page.getByRole('option', { name: '24 fps' }).click()
  await dialog.getByRole('button', { name: 'Presets' }).click()
  await page.getByLabel('Keep these settings as').fill('Slow')
  await page.getByRole('button', { name: 'Keep', exact: true }).click()
  await expect(page.getByRole('menuitem', { name: 'Slow' })).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(dialog).toBeVisible()
  await expect(page.getByRole('menuitem', { name: 'Slow' })).toHaveCount(0)
  await page.keyboard.press('Escape')
  await expect(dialog).toHaveCount(0)
  await page.getByRole('button', { name: 'Render', exact: true }).click()
  await expect(dialog.getByLabel('Frame rate')).toContainText('24 fps')
})

test('a recording is renamed, thrown away and deleted: its bytes come back; a finished file comes out of the bin again', async ({
  page,
}) => {
  await toBench(page, made('silent.mp4'), 'silent')
  await renderAndSave(page, { size: SMALL })
  await page.getByRole('link', { name: 'Outbox' }).click()
  await page.getByRole('button', { name: /^More for/ }).click()
  await page.getByRole('menuitem', { name: 'Move to the bin' }).click()
  await expect(page.locator('article[data-state=finished]')).toHaveCount(0)
  await page.getByRole('button', { name: 'Bin 1' }).click()
  await page.getByRole('button', { name: /^Put back/ }).click()
  await expect(page.locator('article[data-state=finished]')).toHaveCount(1)
  await page.keyboard.press('Escape')

  await page.getByRole('link', { name: 'Shelf', exact: true }).click()
  await page.getByRole('button', { name: 'Rename “silent”' }).click()
  await page.getByLabel('Name of silent').fill('Quiet evening')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('article', { name: 'Quiet evening' })).toBeVisible()
  const used = () => page.getByTitle(/^Copies of recordings/).innerText()
  const before = await used()
  await page.getByRole('button', { name: 'Move “Quiet evening” to the bin' }).click()
  await page.getByRole('button', { name: 'Bin 1' }).click()
  await page.getByRole('button', { name: /^Empty the bin/ }).click()
  const sure = page.getByRole('dialog', { name: /for good/ })
  await expect(sure).toContainText('1 highlight on the Shelf is cut from what is deleted')
  await sure.getByRole('button', { name: 'Delete for good' }).click()
  await expect(page.getByText('The bin is empty.')).toBeVisible()
  await page.keyboard.press('Escape')
  const files = await inDatabase(page, (db, done) => done(db.transaction('files').objectStore('files').count()))
  expect(files).toBe(0)
  expect(before).not.toContain('0 kB used')
})

test('emoji are drawn in the preview and in the file; a letter that no font has is found', async ({ page }) => {
  const errors = watchForErrors(page)
  await toBench(page, made('silent.mp4'), 'silent')
  await page.getByRole('button', { name: 'Words', exact: true }).click()
  await page.getByRole('button', { name: 'Add title' }).click()
  await page.getByRole('textbox', { name: 'Title', exact: true }).fill('🟥🟥🟥')
  await page.keyboard.press('Escape')
  const { path } = await renderAndSave(page)
  // The red squares stand in the title's area; nothing else there is as red.
  const width = 1080
  const frame = run('ffmpeg', [
    '-v',
    'error',
    '-ss',
    '1',
    '-i',
    path,
    '-frames:v',
    '1',
    '-pix_fmt',
    'rgb24',
    '-f',
    'rawvideo',
    '-',
  ])
  const reds = []
  for (let y = 100; y < 700; y += 20)
    for (let x = 300; x < 800; x += 20) {
      const [r = 0, g = 0, b = 0] = frame.subarray((y * width + x) * 3)
      if (r > 180 && g < 90 && b < 110) reds.push([x, y])
    }
  expect(reds.length).toBeGreaterThan(3)
  await page.goBack()
  await page.getByRole('button', { name: 'Words', exact: true }).click()
  await page.getByRole('textbox', { name: 'Title', exact: true }).fill('Lift \u{10FFFE}')
  await page.keyboard.press('Escape')
  await page
    .getByRole('button', { name: /found|finding/i })
    .first()
    .click()
  await expect(page.getByText(/no font has .* \(U\+10FFFE\)/)).toBeVisible({ timeout: 30_000 })
  errors.expectNone()
})

test('times are typed as people type them, and what is none is refused with a word', async ({ page }) => {
  await toBench(page, made('silent.mp4'), 'silent')
  await page.getByRole('button', { name: 'Settings of passage 1' }).click()
  const field = page.getByRole('textbox', { name: 'Out point', exact: true })
  await field.fill('0:05')
  await field.press('Enter')
  await expect(field).toHaveValue('5.000')
  await field.fill('90f')
  await field.press('Enter')
  await expect(field).toHaveValue('3.000')
  await field.fill('soon')
  await field.press('Enter')
  await expect(page.getByRole('alert')).toContainText('“soon” is not a time')
  await expect(field).toHaveValue('3.000')
})

test('at 200 % zoom everything of the Bench can be reached', async ({ page }) => {
  await page.setViewportSize({ width: 640, height: 400 })
  await toBench(page, made('silent.mp4'), 'silent')
  const render = page.getByRole('button', { name: 'Render', exact: true })
  const box = await render.boundingBox()
  expect(box && box.x >= 0 && box.x + box.width <= 640 && box.y >= 0 && box.y + box.height <= 400).toBe(true)
  await render.click()
  await expect(page.getByRole('dialog', { name: /^Render/ })).toBeVisible()
})

test('days on the Shelf’s chart never lie over each other', async ({ page }) => {
  await choosePlainly(page)
  await addFiles(page, made('silent.mp4'))
  await expect(page.getByRole('article')).toHaveCount(1)
  // The same recording on forty days, as the database would have them.
  await inDatabase(page, async (db, done) => {
    const write = db.transaction('recordings', 'readwrite')
    const store = write.objectStore('recordings')
    const [first] = (await done(store.getAll())) as { id: string }[]
    for (let n = 1; n <= 40; n++)
      store.put({ ...first, id: `day-${n}`, recordedAt: new Date(Date.UTC(2026, 9, 1 + n)).toISOString() })
    await done(write)
  })
  await page.reload()
  for (const width of [1024, 1280, 1920]) {
    await page.setViewportSize({ width, height: 800 })
    await expect(page.locator('.recharts-cartesian-axis-tick-value').first()).toBeVisible()
    // The chart may be drawn anew between two looks: all labels are measured at one time, until they are apart.
    await expect
      .poll(() =>
        page.evaluate(() => {
          const labels = [...document.querySelectorAll('.recharts-cartesian-axis-tick-value')]
          const boxes = labels.map((label) => label.getBoundingClientRect())
          return boxes.length > 1 && boxes.slice(1).every(({ left }, n) => left > (boxes[n]?.right ?? 0))
        }),
      )
      .toBe(true)
  }
})

/** The pixels of a picture of the page, a byte for each of red, green and blue. */
const pixelsOf = (png: Buffer): Buffer =>
  run('ffmpeg', ['-v', 'error', '-f', 'png_pipe', '-i', '-', '-pix_fmt', 'rgb24', '-f', 'rawvideo', '-'], png)

/** Bytes of a picture that have to change for a focus to be seen. */
const LEAST_SEEN = 60

/** Bytes of the picture round a control that change when it gets the focus; null where it is not seen or takes none. */
async function changeOfFocus(page: Page, control: Locator): Promise<number | null> {
  const box = await control.boundingBox()
  if (!box || box.width < 2 || box.height < 2) return null
  const [x, y] = [Math.max(0, box.x - 6), Math.max(0, box.y - 6)]
  const clip = { x, y, width: Math.min(1280 - x, box.width + 12), height: Math.min(800 - y, box.height + 12) }
  if (clip.width < 2 || clip.height < 2) return null
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur())
  await page.mouse.move(0, 799)
  const plain = pixelsOf(await page.screenshot({ clip }))
  await control.evaluate((element) => (element as HTMLElement).focus({ focusVisible: true } as FocusOptions))
  if (!(await control.evaluate((element) => document.activeElement === element))) return null
  const focused = pixelsOf(await page.screenshot({ clip }))
  return plain.reduce((sum, byte, i) => sum + (byte === focused[i] ? 0 : 1), 0)
}

test('the focus is seen on every control of every screen', async ({ page }) => {
  await toBench(page, made('silent.mp4'), 'silent')
  // Each screen with what is there when it is.
  const screens: [address: string, there: Locator][] = [
    ['/', page.getByRole('article').first()],
    [page.url(), page.getByRole('slider', { name: /^Out point/ })],
    ['/rack', page.getByRole('button', { name: /^Duplicate / }).first()],
    ['/outbox', page.getByRole('heading', { name: 'No files yet' })],
    ['/outbox/sheet', page.getByRole('checkbox', { name: /^Choose / }).first()],
    ['/outbox/week', page.getByRole('button', { name: 'This week' })],
  ]
  const unseen: string[] = []
  // Controls of one kind, with the same classes, look the same when they have the focus.
  const kinds = new Set<string>()
  for (const [address, there] of screens) {
    await page.goto(address)
    await expect(there).toBeVisible()
    await page.waitForLoadState('networkidle')
    await page.addStyleTag({
      content: '* { transition: none !important; animation: none !important; caret-color: transparent !important }',
    })
    const controls = await page
      .locator(
        'a[href], button:not([disabled]), input:not([type=file]):not([disabled]):not([aria-hidden=true]), [tabindex="0"]',
      )
      .all()
    for (const control of controls) {
      if (!(await control.isVisible().catch(() => false))) continue
      const kind = await control.evaluate((e) => `${e.tagName} ${e.getAttribute('role')} ${e.className}`)
      if (kinds.has(kind)) continue
      await control.scrollIntoViewIfNeeded().catch(() => {})
      // What is found meanwhile may move it away between two pictures: then it is looked at once more.
      const different = (await changeOfFocus(page, control)) ?? 0
      const again = different < LEAST_SEEN ? await changeOfFocus(page, control) : different
      if (again === null) continue
      kinds.add(kind)
      if (again < LEAST_SEEN)
        unseen.push(
          `${new URL(page.url()).pathname}: ${await control.evaluate((e) => e.getAttribute('aria-label') ?? e.textContent ?? e.tagName)}`,
        )
    }
  }
  expect(kinds.size).toBeGreaterThan(30)
  expect(unseen).toEqual([])
})
