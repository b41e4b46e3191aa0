import { expect, test, type Page } from '@playwright/test'
import {
  choosePlainly,
  renderAndSave,
  setNumber,
  setRegion,
  toBench,
  untilKept,
  watchForErrors,
  SMALL,
} from '../support/brimble'
import { ffprobe, frameTimes, sound } from '../support/ffmpeg'
import { inDatabase } from '../support/inDatabase.mjs'
import { made } from '../support/makeRecordings'
import { numbersOf } from '../support/numbered'

const header = (page: Page, n: number) => page.getByRole('group', { name: new RegExp(`^Passage ${n} of `) })
const clock = (page: Page) => page.getByTestId('clock')

/** Goes to a time of the output, whole seconds, with the keyboard. */
async function goTo(page: Page, seconds: number): Promise<void> {
  await page.keyboard.press('Escape')
  await page.keyboard.press('Home')
  for (let i = 0; i < seconds; i++) await page.keyboard.press('Shift+ArrowRight')
}

async function setJoinOf(page: Page, index: number, kind: string): Promise<void> {
  await page.getByRole('button', { name: new RegExp(`^Join of passages ${index} and ${index + 1}`) }).click()
  await page.getByRole('dialog', { name: 'Join' }).getByRole('button', { name: kind, exact: true }).click()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog', { name: 'Join' })).toHaveCount(0)
}

test('six passages, two speeds, a push, a dissolve and a strike come out to the frame, with no click and no drift', async ({
  page,
}) => {
  test.setTimeout(180_000)
  const errors = watchForErrors(page)
  await toBench(page, made('numbered.mp4'), 'numbered')
  await setRegion(page, 'Face', { x: 0, y: 0, width: 1280, height: 720 })
  await page.keyboard.press('1')
  await setNumber(page, 1, 'Out point', '12.000')
  for (const at of [2, 4, 6, 8, 10]) {
    await goTo(page, at)
    await page.keyboard.press('s')
  }
  await expect(header(page, 6)).toHaveCount(1)
  await goTo(page, 8)
  for (let i = 0; i < 15; i++) await page.keyboard.press('ArrowRight')
  await page.keyboard.press(',')
  for (let i = 0; i < 15; i++) await page.keyboard.press('ArrowRight')
  await page.keyboard.press('.')
  await page.keyboard.press('x')
  await expect(page.getByRole('button', { name: /^Restore/ })).toHaveCount(1)
  // The last passage goes to the front: 10–12, 0–2, 2–4, 4–6, 6–8, 8–10 without half a second.
  await goTo(page, 10)
  await header(page, 6).focus()
  for (let n = 5; n > 0; n--) {
    await page.keyboard.press('Alt+ArrowUp')
    await expect(header(page, n), 'the passage that is carried keeps the focus').toBeFocused()
  }
  await goTo(page, 0)
  await setNumber(page, 3, 'Speed', '200')
  // Only what is in sight is in the document.
  await goTo(page, 7)
  await setNumber(page, 5, 'Speed', '50')
  await goTo(page, 1)
  await setJoinOf(page, 1, 'push')
  await goTo(page, 4)
  await setJoinOf(page, 3, 'dissolve')

  const pieces: [from: number, to: number, speed: number][] = [
    [10, 12, 1],
    [0, 2, 1],
    [2, 4, 2],
    [4, 6, 1],
    [6, 8, 0.5],
    [8, 8.5, 1],
    [9, 10, 1],
  ]
  const length = pieces.reduce((sum, [from, to, speed]) => sum + (to - from) / speed, 0)
  await expect(clock(page).locator('..')).toContainText(`/ 0:${length.toFixed(2)}`)
  const { path } = await renderAndSave(page)
  const { video, format } = ffprobe(path)
  expect(Math.abs(Number(format.duration) - length)).toBeLessThanOrEqual(1 / 30)
  expect(video.nb_read_frames).toBe(String(length * 30))

  const joins = [2, 5].map((at) => [at - 0.2, at + 0.2] as const)
  const shown = numbersOf(path, 1080, 608)
  const times = frameTimes(path)
  shown.forEach((number, n) => {
    const t = n / 30
    expect(Math.abs((times[n] ?? NaN) - t)).toBeLessThan(0.002)
    if (joins.some(([from, to]) => t >= from - 0.001 && t < to - 0.001)) return
    let start = 0
    const piece = pieces.find(([from, to, speed]) => t < (start += (to - from) / speed) - 1e-6)
    if (!piece) throw new Error(`nothing is expected at ${t}`)
    const [from, to, speed] = piece
    const recording = from + (t - start + (to - from) / speed) * speed
    expect(number, `frame ${n}, ${t.toFixed(3)} s`).toBe(Math.floor(recording * 30 + 1e-4))
  })

  // Beeps begin with frames 300, 330; 0, 30; … at the place where their frame is shown, at any speed.
  const heard = onsets(sound(path))
  const expected = [1, 2, 3, 4, 4.5, 5, 6, 7, 9, 11.5]
  for (const at of expected)
    expect(
      Math.min(...heard.map((h) => Math.abs(h - at))),
      `beep at ${at} s of ${heard.map((h) => h.toFixed(3)).join()}`,
    ).toBeLessThan(0.02)
  expect(largestStep(sound(path)), 'a click is a jump that no beep of half scale makes').toBeLessThan(0.2)
  errors.expectNone()
})

/** Seconds at which sound rises out of silence. */
function onsets(samples: Float32Array): number[] {
  const found: number[] = []
  let quiet = 4800
  for (let i = 0; i < samples.length; i++) {
    if (Math.abs(samples[i] ?? 0) < 0.05) quiet++
    else {
      if (quiet >= 4800) found.push(i / 48000)
      quiet = 0
    }
  }
  return found
}

/** The largest difference between neighbouring samples. */
function largestStep(samples: Float32Array): number {
  let most = 0
  for (let i = 1; i < samples.length; i++) most = Math.max(most, Math.abs((samples[i] ?? 0) - (samples[i - 1] ?? 0)))
  return most
}

test('what lies beyond a cut is shown while it is trimmed, frame by frame; a strike is restored; all of it is undone, also after a reload', async ({
  page,
}) => {
  await toBench(page, made('numbered.mp4'), 'numbered')
  await page.keyboard.press('1')
  await setNumber(page, 1, 'Out point', '10.000')
  const length = () => clock(page).locator('..').innerText()
  const out = page.getByRole('slider', { name: 'Out point' })
  await page.keyboard.press('End')
  await out.focus()
  await expect(page.getByTestId('sheet-rows').getByText('+1.00')).toBeVisible()
  await page.keyboard.press('ArrowDown')
  await expect(out).toHaveAttribute('aria-valuetext', '0:10.033')
  await page.keyboard.press('Escape')
  await expect(page.getByTestId('sheet-rows').getByText('+1.00')).toHaveCount(0)
  const box = await out.boundingBox()
  if (!box) throw new Error('no handle')
  await page.mouse.move(box.x + 100, box.y + 8)
  await page.mouse.down()
  await page.mouse.move(box.x + 100, box.y + 8 + 56, { steps: 6 })
  await page.mouse.up()
  await expect(out).toHaveAttribute('aria-valuetext', /^0:11\.0/)
  await page.keyboard.press('Escape')

  await goTo(page, 2)
  await page.keyboard.press(',')
  for (let i = 0; i < 3; i++) await page.keyboard.press('Shift+ArrowRight')
  await page.keyboard.press('.')
  await expect(page.getByTestId('marked-stretch')).toBeVisible()
  await page.keyboard.press('x')
  expect(await length()).toContain('/ 0:08.0')
  await untilKept(page)
  await page.reload()
  await expect(page.getByRole('img', { name: 'Result, tall' })).toBeVisible()
  await page.keyboard.press('1')
  await page.getByRole('button', { name: /^Restore 0:02/ }).click()
  expect(await length()).toContain('/ 0:11.0')
  // One drag is one step, one run of keys is one step: restore, strike, drag, key, and the number that was typed.
  for (const expected of ['/ 0:08.0', '/ 0:11.0', '/ 0:10.03', '/ 0:10.00', '/ 0:14.0']) {
    await page.keyboard.press('Control+z')
    await expect.poll(length).toContain(expected)
  }
})

test('dead air is proposed with what it saves, struck out all at once or one by one, and comes back', async ({
  page,
}) => {
  await page.goto('/?demo')
  await page.getByRole('link', { name: /^Last gate, no lift/ }).click()
  await expect(page.getByRole('img', { name: 'Result, tall' })).toBeVisible()
  await page.getByRole('button', { name: 'Settings of passage 1' }).click()
  for (const [label, value] of [
    ['Out point', '40.000'],
    ['In point', '0.000'],
  ] as const) {
    await page.getByRole('textbox', { name: label, exact: true }).fill(value)
    await page.getByRole('textbox', { name: label, exact: true }).press('Enter')
  }
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Dead air' }).click()
  const status = page.getByRole('group', { name: 'Dead air' }).getByRole('status')
  await expect(status).toContainText(/\d pauses, \d+\.\d\d s/)
  // The script's pauses in which the game is quiet too.
  const pauses = await page
    .getByRole('button', { name: /^Strike out the pause of/ })
    .evaluateAll((all) => all.map((b) => b.getAttribute('aria-label') ?? ''))
  const starts = pauses.map((p) => Number(/at 0:(\d+\.\d+)/.exec(p)?.[1]))
  for (const silent of [6.8, 14.2, 28.4])
    expect(
      starts.some((s) => Math.abs(s - silent) < 0.9),
      `a pause near ${silent} s among ${starts.join()}`,
    ).toBe(true)
  const before = pauses.length
  await page
    .getByRole('button', { name: /^Strike out the pause of/ })
    .first()
    .click()
  await expect(page.getByRole('button', { name: /^Strike out the pause of/ })).toHaveCount(before - 1)
  await page.getByRole('button', { name: 'Strike out all' }).click()
  await expect(page.getByRole('button', { name: /^Restore/ }).first()).toBeVisible()
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await expect(clock(page).locator('..')).toContainText('/ 0:40.00')
})

test('another recording is added, passages are moved by dragging, and a join that lacks material says by how much and is put right', async ({
  page,
}) => {
  await toBench(page, made('silent.mp4'), 'silent')
  await page.keyboard.press('1')
  await page.getByRole('button', { name: 'Passage', exact: true }).click()
  const chooser = page.waitForEvent('filechooser')
  await page.getByRole('button', { name: 'Choose other files' }).click()
  await (await chooser).setFiles(made('vp9.webm'))
  await expect(header(page, 2)).toHaveAttribute('aria-label', 'Passage 2 of 2, vp9')
  await page.getByRole('button', { name: 'Zoom out' }).click()
  await page.getByRole('button', { name: 'Zoom out' }).click()
  const join = page.getByRole('button', { name: /^Join of passages 1 and 2/ })
  await join.click()
  await page.getByRole('button', { name: 'dissolve' }).click()
  await expect(
    page.getByRole('dialog', { name: 'Join' }).getByText('6 frames are missing after the out point'),
  ).toBeVisible()
  await page.getByRole('button', { name: 'Make it a cut' }).first().click()
  await page.keyboard.press('Escape')
  await expect(join).toHaveAttribute('aria-label', 'Join of passages 1 and 2: cut')
  const from = await header(page, 2).boundingBox()
  const to = await header(page, 1).boundingBox()
  if (!from || !to) throw new Error('no headers')
  await page.mouse.move(from.x + 80, from.y + 10)
  await page.mouse.down()
  await page.mouse.move(to.x + 80, to.y + 4, { steps: 8 })
  await page.mouse.up()
  await expect(header(page, 1)).toHaveAttribute('aria-label', 'Passage 1 of 2, vp9')
  await page.keyboard.press('Control+z')
  await expect(header(page, 1)).toHaveAttribute('aria-label', 'Passage 1 of 2, silent')
})

test('two tabs on one highlight never write over each other; a version is kept and gone back to', async ({
  page,
  context,
}) => {
  await toBench(page, made('silent.mp4'), 'silent')
  const other = await context.newPage()
  await other.goto(page.url())
  await expect(other.getByRole('img', { name: 'Result, tall' })).toBeVisible()
  await page.bringToFront()
  await page.keyboard.press('Control+d')
  await page.getByRole('textbox', { name: /^Name of the new version/ }).fill('Whole')
  await page.getByRole('button', { name: 'Keep', exact: true }).click()
  await expect(page.getByText('Whole', { exact: true })).toBeVisible()
  await page.getByRole('button', { name: 'Close' }).click()
  await setNumber(page, 1, 'Speed', '200')
  await untilKept(page)
  await other.bringToFront()
  await setNumber(other, 1, 'Speed', '50')
  await expect(other.getByRole('alert').filter({ hasText: 'was changed in another tab' })).toBeVisible()
  await other.getByRole('button', { name: 'Keep mine as a copy' }).click()
  await expect(other.getByLabel('Name of the highlight')).toHaveValue('silent, cut 1 (copy)')
  await expect(clock(other).locator('..')).toContainText('/ 0:16.00')
  await page.bringToFront()
  await expect(clock(page).locator('..')).toContainText('/ 0:04.00')
  await page.getByRole('button', { name: 'Versions' }).click()
  await page.getByRole('button', { name: 'Go back to it' }).click()
  await expect(clock(page).locator('..')).toContainText('/ 0:08.00')
  await page.keyboard.press('Control+z')
  await expect(clock(page).locator('..')).toContainText('/ 0:04.00')
})

test('music lies under a highlight and goes down while somebody speaks', async ({ page }) => {
  await choosePlainly(page)
  await page.goto('/?demo')
  await page.getByRole('link', { name: /^Last gate, no lift/ }).click()
  await expect(page.getByRole('img', { name: 'Result, tall' })).toBeVisible()
  await setNumber(page, 1, 'In point', '15.000')
  await setNumber(page, 1, 'Out point', '18.400')
  await page.getByRole('button', { name: 'portrait', exact: true }).click()
  await page.getByRole('button', { name: 'square', exact: true }).click()
  await page.getByRole('button', { name: 'Music' }).click()
  const chooser = page.waitForEvent('filechooser')
  await page.getByRole('button', { name: 'Add a file' }).click()
  await (await chooser).setFiles(made('music.wav'))
  const bed = page.getByRole('region', { name: 'music' })
  await expect(bed).toBeVisible()
  for (const [label, value] of [
    ['Level', '-6.0'],
    ['Duck under speech', '20'],
    ['Fade in', '0.00'],
    ['Fade out', '0.00'],
  ] as const) {
    await bed.getByRole('textbox', { name: label }).fill(value)
    await bed.getByRole('textbox', { name: label }).press('Enter')
  }
  await page.getByRole('button', { name: 'Done' }).click()
  // The recording is listened to first: where speech is must be known.
  await expect.poll(() => heardParts(page), { timeout: 30_000 }).toBeGreaterThan(0)
  const { path } = await renderAndSave(page, { rate: '24 fps', size: SMALL })
  const music = levelAt(sound(path), 3000)
  // The line "Oh! The lift is right here!" begins at 16.9 s of the recording: 1.9 s of the file.
  const before = music(0.4, 1.4)
  const under = music(2.2, 3.2)
  expect(before).toBeGreaterThan(0.15)
  expect(20 * Math.log10(before / under)).toBeGreaterThan(14)
  expect(20 * Math.log10(before / under)).toBeLessThan(24)
})

function heardParts(page: Page): Promise<number> {
  return inDatabase(page, (db, done) => done(db.transaction('analyses').objectStore('analyses').count()))
}

/** Strength of one tone (Goertzel) between two times of a file. */
function levelAt(samples: Float32Array, hz: number) {
  return (from: number, to: number) => {
    const start = Math.round(from * 48000)
    const count = Math.round((to - from) * 48000)
    const k = 2 * Math.cos((2 * Math.PI * hz) / 48000)
    let [a, b] = [0, 0]
    for (let i = 0; i < count; i++) [a, b] = [(samples[start + i] ?? 0) + k * a - b, a]
    return (2 * Math.sqrt(a * a + b * b - k * a * b)) / count
  }
}
