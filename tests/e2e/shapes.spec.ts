import { expect, test, type Locator, type Page } from '@playwright/test'
import { readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import {
  addFiles,
  keepRecipe,
  renderAndSave,
  setNumber,
  steadyPicture,
  takeLayout,
  toBench,
  toDemoBench,
  untilLookedAlong,
  watchForErrors,
} from '../support/brimble'
import { ffmpeg, onset, sound, ssim } from '../support/ffmpeg'
import { made } from '../support/makeRecordings'

const STREAM = 'public/demo/ridge-cup-stream.mp4'

const panel = (page: Page, shape: string, name: string) =>
  page.getByTestId(`shape-${shape}`).getByRole('group', { name: new RegExp(`^${name}`) })
const sizeOf = async (found: Locator) =>
  /(\d+) × (\d+)/
    .exec((await found.getAttribute('aria-label')) ?? '')
    ?.slice(1)
    .map(Number)

/** Where something lies in its shape, in shares of it. */
async function placeIn(page: Page, shape: string, found: Locator) {
  const [host, box] = [await page.getByTestId(`shape-${shape}`).boundingBox(), await found.boundingBox()]
  if (!host || !box) throw new Error('not on screen')
  return {
    x: (box.x - host.x) / host.width,
    y: (box.y - host.y) / host.height,
    width: box.width / host.width,
    height: box.height / host.height,
  }
}

async function drag(page: Page, found: Locator, dx: number, dy: number, held?: 'Alt'): Promise<void> {
  const box = await found.boundingBox()
  if (!box) throw new Error('not on screen')
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2]
  await page.mouse.move(x, y)
  await page.mouse.down()
  if (held) await page.keyboard.down(held)
  await page.mouse.move(x + dx, y + dy, { steps: 6 })
  await page.mouse.up()
  if (held) await page.keyboard.up(held)
}

test('an inset is moved, comes to rest on the middle, is resized and nudged; in one shape only with Alt, and follows the others again', async ({
  page,
}) => {
  const errors = watchForErrors(page)
  await toBench(page, made('silent.mp4'), 'silent')
  await page.keyboard.press('3')
  await page.getByRole('button', { name: 'square', exact: true }).click()
  await takeLayout(page, 'Porthole')
  const [tall, square] = [panel(page, 'tall', 'face inset'), panel(page, 'square', 'face inset')]
  expect(await sizeOf(tall)).toEqual([410, 410])
  const host = await page.getByTestId('shape-tall').boundingBox()
  if (!host) throw new Error('no shape')
  const start = await placeIn(page, 'tall', tall)
  const squareStart = await placeIn(page, 'square', square)
  // Nearly to the middle: it rests there. A little farther off it would rest on the third, which is as near.
  await drag(page, tall, (0.5 - start.x - start.width / 2) * host.width - 1, 0.3 * host.height)
  const moved = await placeIn(page, 'tall', tall)
  expect(moved.x + moved.width / 2).toBeCloseTo(0.5, 2)
  expect(await placeIn(page, 'square', square)).not.toEqual(squareStart)
  await tall.focus()
  await page.keyboard.press('Shift+ArrowRight')
  expect((await placeIn(page, 'tall', tall)).x - moved.x).toBeCloseTo(20 / 1080, 2)
  await page.keyboard.press('Alt+Shift+ArrowRight')
  expect((await sizeOf(tall))?.[0]).toBe(430)
  const before = await placeIn(page, 'tall', tall)
  await drag(page, square, 30, 20, 'Alt')
  expect(await placeIn(page, 'tall', tall)).toEqual(before)
  const own = page.getByRole('button', { name: /^square has its own arrangement/ })
  await expect(own).toHaveAttribute('aria-pressed', 'true')
  await own.click()
  await expect(page.getByRole('button', { name: 'Give square its own arrangement' })).toBeVisible()
  for (let i = 0; i < 5; i++) await page.keyboard.press('Control+z')
  await expect.poll(async () => (await placeIn(page, 'tall', tall)).x).toBeCloseTo(start.x, 2)
  errors.expectNone()
})

test('bands change places by dragging a letter or from the ticket, are added and removed; what lies behind is chosen; the gap is exact', async ({
  page,
}) => {
  const errors = watchForErrors(page)
  await toBench(page, made('silent.mp4'), 'silent')
  await page.keyboard.press('3')
  const first = () => page.getByTestId('shape-tall').getByRole('group').first()
  await expect(first()).toHaveAttribute('aria-label', /^face panel/)
  const badge = panel(page, 'tall', 'face panel').locator('span').first()
  const below = await panel(page, 'tall', 'game panel').boundingBox()
  const letter = await badge.boundingBox()
  if (!below || !letter) throw new Error('not on screen')
  await page.mouse.move(letter.x + 5, letter.y + 5)
  await page.mouse.down()
  await page.mouse.move(below.x + below.width / 2, below.y + below.height / 2, { steps: 5 })
  await page.mouse.up()
  await expect(first()).toHaveAttribute('aria-label', /^game panel/)
  await page.getByRole('button', { name: 'More about band 1' }).click()
  await page.getByRole('combobox', { name: 'Swap with' }).click()
  await page.getByRole('option', { name: /^Face/ }).click()
  await expect(first()).toHaveAttribute('aria-label', /^face panel/)
  await page.getByRole('button', { name: 'Add band' }).click()
  await expect(panel(page, 'tall', 'whole panel')).toBeVisible()
  await page.getByRole('button', { name: 'Backdrop settings' }).click()
  const gap = page.getByRole('textbox', { name: 'Gap between bands' })
  await gap.fill('4')
  await gap.press('Enter')
  await page.keyboard.press('Escape')
  const heights = await page
    .getByTestId('shape-tall')
    .getByRole('group')
    .evaluateAll((all) => all.map((e) => Number(/× (\d+)/.exec(e.getAttribute('aria-label') ?? '')?.[1])))
  expect(heights.reduce((a, b) => a + b, 0) + 8).toBe(1920)
  await page.getByRole('combobox', { name: 'Backdrop behind the panels' }).click()
  await page.getByRole('option', { name: 'a blurred copy' }).click()
  await page.getByRole('button', { name: 'More about band 3' }).click()
  await page.getByRole('button', { name: 'Remove band 3' }).click()
  await expect(panel(page, 'tall', 'whole panel')).toHaveCount(0)
  for (let i = 0; i < 6; i++) await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('combobox', { name: 'Backdrop behind the panels' })).toHaveText('a colour')
  await page.getByRole('button', { name: 'Own size…' }).click()
  await page.getByLabel('Height, px').fill('625')
  await expect(
    page.getByRole('status').filter({ hasText: 'Video needs even sides: it becomes 540 × 626' }),
  ).toBeVisible()
  await page.getByRole('button', { name: 'Add 540 × 626' }).click()
  await expect(page.getByTestId('shape-own-540x626')).toBeVisible()
  const here = page.url()
  await page.getByRole('combobox', { name: 'Zones of an outlet' }).click()
  await page.getByRole('option', { name: 'Story' }).click()
  await expect(page.getByRole('note', { name: 'Reply, covered by Story' })).toBeVisible()
  await page.getByRole('button', { name: 'Copy for Story' }).click()
  await page.waitForURL((url) => url.href !== here)
  await expect(page.getByLabel('Name of the highlight')).toHaveValue(/, Story$/)
  await expect(page.getByRole('img', { name: 'Result, tall' })).toBeVisible()
  await expect(page.getByTestId('shape-own-540x626')).toHaveCount(0)
  errors.expectNone()
})

test('a layout and a recipe are kept, used in one action by another highlight, written to a file and read back; a broken file is told of', async ({
  page,
}) => {
  test.setTimeout(180_000)
  const errors = watchForErrors(page)
  await toBench(page, made('silent.mp4'), 'silent')
  await page.keyboard.press('3')
  await takeLayout(page, 'Corner card')
  await page.getByRole('button', { name: 'square', exact: true }).click()
  await keepRecipe(page, 'Card evening')
  await page.goto('/')
  await addFiles(page, made('vp9.webm'))
  await page.getByRole('button', { name: 'Cut a highlight from vp9' }).click()
  await page.getByRole('button', { name: /^Layout: / }).click()
  await page.getByRole('group', { name: 'Recipes' }).getByRole('button', { name: 'Card evening' }).click()
  await expect(panel(page, 'square', 'face inset')).toBeVisible()
  await page.getByRole('link', { name: 'Rack' }).click()
  const layouts = page.getByRole('region', { name: 'Layouts' })
  await expect(layouts.getByRole('listitem', { name: 'Corner card' })).toContainText('Used in')
  await page.getByRole('button', { name: 'New brand…' }).click()
  await page.getByLabel('Name', { exact: true }).fill('Heron Ridge')
  await page.getByRole('button', { name: 'Make brand' }).click()
  await expect(
    page.getByRole('region', { name: 'Brands' }).getByRole('listitem', { name: 'Heron Ridge' }),
  ).toBeVisible()
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Export all' }).click()
  const file = join(tmpdir(), `brimble-rack-${Date.now()}.brimble.json`)
  await (await download).saveAs(file)
  for (const name of ['Card evening', 'Corner card']) await page.getByRole('button', { name: `Remove ${name}` }).click()
  await expect(layouts.getByRole('listitem')).toHaveCount(0)
  await page.getByLabel('Files of a rack').setInputFiles(file)
  await expect(page.getByText('1 layout, 1 recipe added')).toBeVisible()
  await expect(layouts.getByRole('listitem', { name: 'Corner card' })).toBeVisible()
  const sent = JSON.parse(readFileSync(file, 'utf8')) as {
    layouts: {
      id: string
      name: string
      arrangement: { insets: Record<string, unknown>[]; tree: Record<string, unknown> }
    }[]
  }
  const [wild] = sent.layouts
  if (!wild?.arrangement.insets[0]) throw new Error('no layout in the file')
  Object.assign(wild, { id: 'sent', name: '<img src=x onerror=alert(1)>' })
  wild.arrangement.insets[0].width = 40
  wild.arrangement.tree.role = 'wing camera'
  writeFileSync(
    file,
    JSON.stringify({ brimble: 'rack', version: 1, layouts: [wild, { name: 'Nonsense', schemaVersion: 1 }] }),
  )
  await page.getByLabel('Files of a rack').setInputFiles(file)
  await expect(page.getByText(/Repaired: layout .*arrangement.insets.0.width: 40 became 1/)).toBeVisible()
  await expect(page.getByText(/Left out: layout “Nonsense”/)).toBeVisible()
  await expect(page.getByText(/it shows “wing camera”/)).toBeVisible()
  await expect(layouts.getByRole('listitem', { name: '<img src=x onerror=alert(1)>' })).toBeVisible()
  errors.expectNone()
})

test('a leapfrog of the field’s shots: the right shot is in the right band at every time, and the sound is the original’s', async ({
  page,
}) => {
  test.setTimeout(240_000)
  const errors = watchForErrors(page)
  const shots = ['field-winch', 'field-dawn', 'field-dusk', 'open-day-call']
  await addFiles(page, ...shots.map((s) => `public/demo/${s}.mp4`))
  await page.getByRole('button', { name: 'Cut a highlight from field-winch' }).click()
  await expect(page.getByRole('img', { name: 'Result, tall' })).toBeVisible()
  await page.keyboard.press('1')
  for (const [n, shot] of shots.entries()) {
    if (n > 0) {
      await page.keyboard.press('End')
      await page.getByRole('button', { name: 'Passage', exact: true }).click()
      await page
        .getByRole('dialog')
        .getByRole('checkbox', { name: new RegExp(`^${shot}`) })
        .check()
      await page.getByRole('dialog').getByRole('button', { name: 'Add passage' }).click()
      await expect(
        page.getByRole('group', { name: new RegExp(`^Passage ${n + 1} of ${n + 1}, ${shot}`) }),
      ).toBeVisible()
    }
    await setNumber(page, n + 1, 'Out point', '2.000')
  }
  await page.keyboard.press('3')
  await page.getByRole('button', { name: /^Layout: / }).click()
  await page.getByRole('button', { name: 'Leapfrog…' }).click()
  await expect(page.getByText('Every shot lasts until it is pushed out.')).toBeVisible()
  await page.getByRole('button', { name: 'Lay out 4 shots' }).click()
  const { path } = await renderAndSave(page)
  // What is to be seen at times away from the pushes: which shot, at which of its seconds, from which row of the
  // canvas on, how high.
  const seen: [at: number, parts: [shot: string, seconds: number, y: number, height: number][]][] = [
    [1, [['field-winch', 1, 0, 960]]],
    [
      3,
      [
        ['field-winch', 3, 0, 960],
        ['field-dawn', 1, 960, 960],
      ],
    ],
    [
      5,
      [
        ['field-dusk', 1, 0, 960],
        ['field-dawn', 3, 960, 960],
      ],
    ],
    [7, [['open-day-call', 1, 0, 1920]]],
  ]
  const still = test.info().outputPath('still.png')
  const wanted = test.info().outputPath('wanted.png')
  for (const [at, parts] of seen)
    for (const [shot, seconds, y, height] of parts) {
      ffmpeg('-ss', String(at), '-i', path, '-frames:v', '1', '-vf', `crop=1080:${height}:0:${y}`, still)
      ffmpeg(
        '-ss',
        String(seconds),
        '-i',
        `public/demo/${shot}.mp4`,
        '-frames:v',
        '1',
        '-vf',
        `crop=ih*1080/${height}:ih,scale=1080:${height}:flags=bilinear`,
        wanted,
      )
      expect(ssim(still, ['-i', wanted], '[1:v]null[ref]'), `${shot} at ${at} s`).toBeGreaterThan(0.95)
    }
  // Each shot's own sound from its cut point on, and nothing of the others': the loudest of a shot lies where it does
  // in its recording.
  const heard = sound(path)
  shots.forEach((shot, n) => {
    const own = sound(`public/demo/${shot}.mp4`)
    const [a, b] = [energy(heard, 2 * n + 0.3, 2 * n + 1.7), energy(own, 0.3, 1.7)]
    expect(Math.abs(a - b), `${shot}: ${a} against ${b} dB`).toBeLessThan(1)
  })
  expect(onset(heard, 0.9999)).toBeNaN()
  errors.expectNone()
})

/** Mean level of a stretch, dB. */
function energy(samples: Float32Array, from: number, to: number): number {
  const part = samples.subarray(Math.round(from * 48_000), Math.round(to * 48_000))
  return 10 * Math.log10(part.reduce((sum, v) => sum + v * v, 0) / part.length + 1e-9)
}

test('a panel plays another recording, lined up by sound', async ({ page }) => {
  const errors = watchForErrors(page)
  // The same evening from 1.5 s later on, as a second camera would have it.
  const second = join(tmpdir(), `brimble-second-${Date.now()}.mp4`)
  ffmpeg(
    '-ss',
    '11.5',
    '-i',
    STREAM,
    '-t',
    '12',
    '-vf',
    'scale=640:360,hue=s=0',
    '-c:v',
    'libx264',
    '-preset',
    'ultrafast',
    '-c:a',
    'aac',
    '-af',
    'volume=0.5',
    second,
  )
  await toBench(page, STREAM, 'ridge-cup-stream')
  await page.goto('/')
  await addFiles(page, second)
  await page.getByRole('link', { name: /^ridge-cup-stream, cut 1/ }).click()
  await setNumber(page, 1, 'In point', '13.000')
  await setNumber(page, 1, 'Out point', '20.000')
  await page.keyboard.press('3')
  await page.getByRole('button', { name: 'More about band 1' }).click()
  await page.getByRole('button', { name: 'Play another recording…' }).click()
  await page
    .getByRole('dialog', { name: 'What this panel plays' })
    .getByRole('button', { name: /^brimble-second/ })
    .click()
  await page.getByRole('button', { name: 'Line up by sound' }).click()
  await expect(page.getByText(/^Lined up; likeness/)).toBeVisible({ timeout: 30_000 })
  const offset = Number(await page.getByRole('textbox', { name: 'Later in its recording by' }).inputValue())
  expect(Math.abs(offset + 11.5)).toBeLessThanOrEqual(0.03)
  await page.getByRole('button', { name: 'Play this passage' }).click()
  await expect(page.getByRole('group', { name: 'Source' })).toContainText('Plays this passage')
  errors.expectNone()
})

test('an outlet’s zones are dragged, resized and moved by keys; the picture in a panel moves in one shape alone with Alt', async ({
  page,
}) => {
  const errors = watchForErrors(page)
  await toDemoBench(page)
  await page.getByRole('link', { name: 'Rack' }).click()
  await page.getByRole('button', { name: 'Change Story' }).click()
  const zone = page.getByRole('group', { name: 'Zones on the shape' }).getByRole('group', { name: 'Reply' })
  const top = page.getByRole('textbox', { name: 'from the top' }).nth(1)
  await expect(top).toHaveValue('90')
  const box = await zone.boundingBox()
  if (!box) throw new Error('no zone')
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2 - 46, { steps: 5 })
  await page.mouse.up()
  // 46 px of a shape that is shown 230 px high.
  await expect(top).toHaveValue('70')
  await zone.focus()
  await page.keyboard.press('Shift+ArrowDown')
  await expect(top).toHaveValue('80')
  await page.keyboard.press('Alt+ArrowUp')
  await expect(page.getByRole('textbox', { name: 'high', exact: true }).nth(1)).toHaveValue('9')
  await page.getByRole('button', { name: 'Keep changes' }).click()
  await page.goBack()
  await page.keyboard.press('3')
  const panelIn = (shape: string) => page.getByTestId(`shape-${shape}`).getByRole('group', { name: /^game panel/ })
  const pictureOf = (shape: string) => steadyPicture(page.getByRole('img', { name: `Result, ${shape}` }))
  await untilLookedAlong(page)
  await panelIn('tall').focus()
  const [tall, square] = [await pictureOf('tall'), await pictureOf('square')]
  for (let i = 0; i < 5; i++) await page.keyboard.press('Alt++')
  await expect(panelIn('tall').getByRole('img', { name: 'Has its own crop in this shape', exact: true })).toHaveCount(1)
  await expect.poll(async () => (await pictureOf('tall')).equals(tall)).toBe(false)
  expect((await pictureOf('square')).equals(square)).toBe(true)
  await page.getByRole('button', { name: 'Centre crop' }).click()
  await expect(panelIn('tall').getByRole('img', { name: 'Has its own crop in this shape', exact: true })).toHaveCount(0)
  errors.expectNone()
})
