import { expect, test, type Page } from '@playwright/test'
import { readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { streamPlaces } from '../../demo/script.mjs'
import { addFiles, keepRecipe, keepSetup, takeLayout, toBench, watchForErrors } from '../support/brimble'
import { inDatabase } from '../support/inDatabase.mjs'
import { made } from '../support/makeRecordings'

const STREAM = 'public/demo/ridge-cup-stream.mp4'

/** The facecam's picture, without the border that is drawn inside its box. */
const CAMERA = {
  x: streamPlaces.facecam.x + streamPlaces.border,
  y: streamPlaces.facecam.y + streamPlaces.border,
  width: streamPlaces.facecam.width - 2 * streamPlaces.border,
  height: streamPlaces.facecam.height - 2 * streamPlaces.border,
}

/** Regions are looked for without being asked for. */
async function untilFound(page: Page): Promise<void> {
  await expect(page.getByRole('button', { name: 'Look again' })).toBeVisible({ timeout: 90_000 })
}

async function pixelsOf(page: Page, name: string) {
  const value = async (key: string) => Number(await page.getByLabel(`${name} ${key}`, { exact: true }).inputValue())
  return { x: await value('left'), y: await value('top'), width: await value('width'), height: await value('height') }
}

const off = (a: typeof CAMERA, b: typeof CAMERA) =>
  Math.max(
    Math.abs(a.x - b.x),
    Math.abs(a.y - b.y),
    Math.abs(a.x + a.width - b.x - b.width),
    Math.abs(a.y + a.height - b.y - b.height),
  )

test('an unknown stream: the facecam is found to the pixel by itself, taken back and accepted in one action each', async ({
  page,
}) => {
  const errors = watchForErrors(page)
  await toBench(page, STREAM, 'ridge-cup-stream')
  const before = await pixelsOf(page, 'Face')
  await untilFound(page)
  const told = page.getByRole('alert').filter({ hasText: /^Found and set: .*Face/ })
  await expect(told).toBeVisible()
  expect(off(await pixelsOf(page, 'Face'), CAMERA)).toBeLessThanOrEqual(4)
  await expect(page.getByLabel('Role of Face')).toBeVisible()
  await page.getByRole('button', { name: 'Confirm all' }).click()
  await expect(page.getByText(/were found by Brimble and are not checked yet/)).toHaveCount(0)
  await page.keyboard.press('ControlOrMeta+z')
  await expect(page.getByText(/were found by Brimble and are not checked yet/)).toBeVisible()
  await told.getByRole('button', { name: 'Undo' }).click()
  await expect.poll(() => pixelsOf(page, 'Face')).toEqual(before)
  await page.reload()
  await expect(page.getByRole('button', { name: 'Find regions' }), 'what was taken back stays so').toBeVisible()
  await page.getByRole('button', { name: 'Find regions' }).click()
  await untilFound(page)
  await page.getByRole('button', { name: 'Change Face 1 before accepting' }).click()
  const changing = page.getByRole('dialog', { name: 'Proposed region' })
  await changing.getByLabel('Name').fill('Wren’s camera')
  await changing.getByLabel('Face top').focus()
  await page.keyboard.press('Escape')
  await expect(changing).toHaveCount(0)
  const rejected = page.getByRole('button', { name: /^Reject Game/ })
  await rejected.click()
  await expect(rejected).toHaveCount(0)
  await page.getByRole('button', { name: /^Accept all/ }).click()
  expect(off(await pixelsOf(page, 'Wren’s camera'), CAMERA)).toBeLessThanOrEqual(4)
  await page.getByRole('button', { name: 'Look again' }).click()
  await untilFound(page)
  await expect(rejected, 'what was rejected is not proposed again').toHaveCount(0)
  errors.expectNone()
})

test('a call: both people; a landscape: nothing, and it says so', async ({ page }) => {
  await addFiles(page, 'public/demo/open-day-call.mp4', 'public/demo/field-winch.mp4')
  await page.getByRole('button', { name: 'Cut a highlight from open-day-call' }).click()
  await untilFound(page)
  await expect(page.getByRole('alert').filter({ hasText: 'Found and set: Speaker, Speaker (2).' })).toBeVisible()
  await expect(page.getByRole('group', { name: /^Speaker.*: \d/ })).toHaveCount(2)
  await page.goto('/')
  await page.getByRole('button', { name: 'Cut a highlight from field-winch' }).click()
  await untilFound(page)
  await expect(page.getByText(/^Nothing stands out/)).toBeVisible()
})

test('a setup is kept, recognised in another recording of another size, taken back in one action, and used in the Rack', async ({
  page,
}) => {
  test.setTimeout(180_000)
  const errors = watchForErrors(page)
  await toBench(page, STREAM, 'ridge-cup-stream')
  await untilFound(page)
  await page.getByRole('button', { name: 'Setup', exact: true }).click()
  await page.getByRole('menuitem', { name: /^Keep these regions/ }).click()
  await page.getByLabel('Name', { exact: true }).fill('Evening stream')
  await page.getByLabel(/^Tags/).fill('soaring, evening')
  await page.getByRole('button', { name: 'Keep setup' }).click()
  await expect(page.getByRole('button', { name: 'Evening stream' })).toBeVisible()
  const kept = await pixelsOf(page, 'Face')

  await page.getByRole('link', { name: 'Brimble' }).click()
  await addFiles(page, made('stream-720.mp4'))
  await page.getByRole('button', { name: 'Cut a highlight from stream-720' }).click()
  await expect(page.getByText(/^Looks like “Evening stream” \(\d+ %\)/)).toBeVisible({ timeout: 60_000 })
  const [x, y, width, height] = [kept.x, kept.y, kept.width, kept.height].map((v) => (v * 2) / 3) as [
    number,
    number,
    number,
    number,
  ]
  expect(off(await pixelsOf(page, 'Face'), { x, y, width, height })).toBeLessThanOrEqual(2)
  const own = page.getByRole('alert').filter({ hasText: 'Looks like' })
  await own.getByRole('button', { name: 'Undo' }).click()
  await expect.poll(async () => off(await pixelsOf(page, 'Face'), { x, y, width, height })).toBeGreaterThan(2)

  await page.getByRole('link', { name: 'Rack' }).click()
  const row = page.getByRole('listitem', { name: 'Evening stream' })
  await expect(row).toContainText('recognised automatically')
  await expect(row.getByRole('link')).toHaveCount(1)
  const download = page.waitForEvent('download')
  await row.getByRole('button', { name: 'Export Evening stream' }).click()
  const file = join(tmpdir(), `brimble-setup-${Date.now()}.brimble.json`)
  await (await download).saveAs(file)
  const written = JSON.parse(readFileSync(file, 'utf8')) as {
    setups: { name: string; tags: string[]; regions: { name: string }[] }[]
  }
  expect(written.setups[0]?.tags).toEqual(['soaring', 'evening'])

  const changed = file.replace('.brimble.json', ' from a colleague.brimble.json')
  for (const region of written.setups[0]?.regions ?? []) region.name = `${region.name} <i>2</i>`
  writeFileSync(changed, JSON.stringify(written))
  await page.getByLabel('Files of a rack').setInputFiles([file, changed])
  await expect(page.getByText(/nothing new, 1 there already/)).toBeVisible()
  await expect(page.getByRole('listitem', { name: 'Evening stream (2)' })).toContainText('Face <i>2</i>')
  await page.getByRole('button', { name: 'Remove Evening stream (2)' }).click()
  const setups = page.getByRole('list', { name: 'Setups' }).getByRole('listitem')
  await expect(setups).toHaveCount(1)
  await page.getByRole('button', { name: 'Put back' }).click()
  await expect(setups).toHaveCount(2)
  writeFileSync(changed, '{"not": "ours"}')
  await page.getByLabel('Files of a rack').setInputFiles(changed)
  await expect(page.getByText(/is not a file of a rack that Brimble wrote\. Nothing was changed\./)).toBeVisible()
  errors.expectNone()
})

test('a match that is not sure gives, once it is accepted, the regions and the recipe that a sure one gives', async ({
  page,
}) => {
  test.setTimeout(180_000)
  const errors = watchForErrors(page)
  await toBench(page, STREAM, 'ridge-cup-stream')
  await keepSetup(page, 'Evening stream')
  const kept = await pixelsOf(page, 'Face')
  await takeLayout(page, 'Corner card')
  await keepRecipe(page, 'Card evening')
  // Nobody looked for places when it was kept, and what stands still is as bright as it never was: lines are alike.
  await inDatabase(page, async (db, done) => {
    const setups = db.transaction('setups', 'readwrite').objectStore('setups')
    const all = (await done(setups.getAll())) as { fingerprint: { luma: number[]; places?: unknown } | null }[]
    for (const setup of all) {
      if (!setup.fingerprint) continue
      setup.fingerprint.luma = setup.fingerprint.luma.map((l, i) => (i % 5 === 0 ? (l + 100) % 256 : l))
      delete setup.fingerprint.places
      await done(setups.put(setup))
    }
  })
  await page.getByRole('link', { name: 'Brimble' }).click()
  await addFiles(page, made('stream-720.mp4'))
  await page.getByRole('button', { name: 'Cut a highlight from stream-720' }).click()
  const asked = page.getByRole('group', { name: 'Is this “Evening stream”?' })
  await expect(asked).toContainText(/Looks like “Evening stream” \(\d+ %\)/, { timeout: 60_000 })
  await page.getByRole('link', { name: 'Brimble' }).click()
  await expect(asked, 'the Shelf asks too').toBeVisible()
  await page.goto('/outbox/sheet')
  await expect(asked, 'and the contact sheet').toContainText('“stream-720” looks like “Evening stream”')
  await page.goBack()
  await page
    .getByRole('link', { name: /stream-720/ })
    .last()
    .click()
  await page.getByRole('img', { name: 'Result, tall' }).waitFor()
  await asked.getByRole('button', { name: 'Use it, with “Card evening”' }).click()
  await expect(asked).toHaveCount(0)
  await expect(page.getByRole('button', { name: 'Layout: Corner card' })).toBeVisible()
  const [x, y, width, height] = [kept.x, kept.y, kept.width, kept.height].map((v) => (v * 2) / 3) as [
    number,
    number,
    number,
    number,
  ]
  expect(off(await pixelsOf(page, 'Face'), { x, y, width, height })).toBeLessThanOrEqual(2)
  errors.expectNone()
})

test('a region is locked, held to a proportion, tightened, copied and snapped to the picture', async ({ page }) => {
  await toBench(page, STREAM, 'ridge-cup-stream')
  await untilFound(page)
  await page
    .getByRole('alert')
    .filter({ hasText: /^Found and set/ })
    .getByRole('button', { name: 'Undo' })
    .click()
  for (const [key, by] of [
    ['left', -4],
    ['top', -4],
    ['width', 8],
    ['height', 8],
  ] as const) {
    const field = page.getByLabel(`Face ${key}`, { exact: true })
    const side = { left: CAMERA.x, top: CAMERA.y, width: CAMERA.width, height: CAMERA.height }[key]
    await field.fill(String(side + by))
    await field.press('Enter')
  }
  const more = () => page.getByRole('button', { name: 'More about Face', exact: true }).click()
  await more()
  await page.getByRole('button', { name: 'Tighten' }).click()
  await expect(page.getByText(/^Face is tighter by/)).toBeVisible()
  expect(await pixelsOf(page, 'Face')).toEqual(CAMERA)
  await page.getByRole('checkbox', { name: 'Locked' }).check()
  await page.keyboard.press('Escape')
  await page.getByRole('group', { name: /^Face: .*locked/ }).focus()
  await page.keyboard.press('ArrowLeft')
  expect(await pixelsOf(page, 'Face')).toEqual(CAMERA)
  await more()
  await page.getByRole('checkbox', { name: 'Locked' }).uncheck()
  await page.keyboard.press('Escape')

  // Drag the left edge roughly; it lands on the camera's own.
  const picture = await page.getByTestId('frame-picture').boundingBox()
  if (!picture) throw new Error('no picture')
  const perPixel = picture.width / 1920
  const [fromX, midY] = [picture.x + CAMERA.x * perPixel, picture.y + (CAMERA.y + CAMERA.height / 2) * perPixel]
  await page.getByRole('group', { name: /^Face: / }).focus()
  await page.mouse.move(fromX, midY)
  await page.mouse.down()
  await page.mouse.move(fromX - 40, midY, { steps: 4 })
  await page.mouse.up()
  expect((await pixelsOf(page, 'Face')).x).toBeLessThan(CAMERA.x - 60)
  await page.mouse.move(fromX - 40, midY)
  await page.mouse.down()
  await page.mouse.move(fromX - 3, midY + 1, { steps: 6 })
  await page.mouse.up()
  expect(Math.abs((await pixelsOf(page, 'Face')).x - CAMERA.x)).toBeLessThanOrEqual(4)

  // Drawn on the bare picture, in one step.
  const at = (x: number, y: number) => [picture.x + x * perPixel, picture.y + y * perPixel] as const
  await page.mouse.move(...at(60, 60))
  await page.mouse.down()
  await page.mouse.move(...at(300, 240), { steps: 6 })
  await page.mouse.up()
  await expect(page.getByRole('group', { name: /^Speaker: / })).toHaveCount(1)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('group', { name: /^Speaker: / })).toHaveCount(0)

  await more()
  await page.getByLabel('Proportion').click()
  await page.getByRole('option', { name: 'square' }).click()
  await page.getByRole('button', { name: 'Copy' }).click()
  await page.getByRole('group', { name: /^Face \(2\): / }).focus()
  await page.keyboard.press('Alt+ArrowRight')
  const copy = await pixelsOf(page, 'Face (2)')
  expect(Math.abs(copy.width - copy.height)).toBeLessThanOrEqual(2)
})
