import { expect, test, type Page } from '@playwright/test'
import { readFileSync, writeFileSync } from 'node:fs'
import { speechStretches } from '@/core/detect/speech'
import { addFiles, untilKept, watchForErrors } from '../support/brimble'
import { inDatabase } from '../support/inDatabase.mjs'
import { made } from '../support/makeRecordings'

const moments = (page: Page) => page.getByRole('region', { name: 'Moments' }).getByRole('listitem')

async function toSpot(page: Page, name: string): Promise<void> {
  await page.getByRole('link', { name: `Find moments in ${name}` }).click()
  await expect(page.getByRole('img', { name: /^The magnified stretch/ })).toBeVisible()
}

const lookedThrough = (page: Page) => expect(page.getByRole('status')).toHaveCount(0, { timeout: 60_000 })

test('the loud moment of the demo stream is found, kept and cut by keyboard alone, and the Shelf shows it', async ({
  page,
}) => {
  const errors = watchForErrors(page)
  await page.goto('/?demo')
  await toSpot(page, 'Ridge Cup, heat 3')
  await lookedThrough(page)
  const found = await moments(page).evaluateAll((all) =>
    all.map((m) => ({
      from: Number(m.dataset.in) / 1e6,
      to: Number(m.dataset.out) / 1e6,
      score: Number(m.dataset.score),
      words: m.textContent ?? '',
    })),
  )
  const [best] = [...found].sort((a, b) => b.score - a.score)
  // The script's loudest line is said from 19.4 to 21.6 s.
  expect(best?.from).toBeLessThan(19.4)
  expect(best?.to).toBeGreaterThan(21.4)
  expect(best?.words).toContain('dB louder than around it')

  const index = found.findIndex((m) => m === best)
  for (let i = 0; i <= index; i++) await page.keyboard.press('Enter')
  await expect(moments(page).nth(index).getByRole('button').first()).toHaveAttribute('aria-current', 'true')
  await page.keyboard.press('k')
  await page.keyboard.press('y')
  await expect(moments(page).nth(index)).toHaveAttribute('data-state', 'kept')
  await page.keyboard.press('Shift+ArrowRight')
  await page.keyboard.press('i')
  await expect(moments(page).nth(index)).toHaveAttribute('data-state', 'kept')
  expect(Number(await moments(page).nth(index).getAttribute('data-in'))).toBeGreaterThan((best?.from ?? 0) * 1e6)
  await page.keyboard.press('Control+z')
  expect(Number(await moments(page).nth(index).getAttribute('data-in')) / 1e6).toBeCloseTo(best?.from ?? 0, 3)
  await page.keyboard.press('Control+Enter')
  await expect(page.getByText('1 highlight is on the Shelf.')).toBeVisible()
  await expect(moments(page).nth(index)).toHaveAttribute('data-state', 'cut')
  await page.getByRole('link', { name: 'Shelf', exact: true }).click()
  await page.getByRole('link', { name: /^Ridge Cup, heat 3, 0:1\d, draft/ }).click()
  await expect(page.getByRole('img', { name: 'Result, tall' })).toBeVisible()
  errors.expectNone()
})

test('speech in the demo footage is found where the script has it', async ({ page }) => {
  await page.goto('/?demo')
  for (const [name, file] of [
    ['Ridge Cup, heat 3', 'ridge-cup-stream'],
    ['Open day call', 'open-day-call'],
    ['Reading thermals, webinar', 'reading-thermals-webinar'],
  ] as const) {
    await toSpot(page, name)
    await lookedThrough(page)
    const rows = await speechRows(page)
    const found = speechStretches(rows.at(-1) ?? [], 0)
    const said = [...readFileSync(`public/demo/${file}.vtt`, 'utf8').matchAll(/00:00:(\S+) --> 00:00:(\S+)/g)].map(
      ([, from, to]) => [Number(from), Number(to)] as const,
    )
    for (const [from, to] of said) {
      const inside = found.some((s) => s.fromMicros / 1e6 < from + 0.2 && s.toMicros / 1e6 > to - 0.25)
      expect(inside, `${file}: ${from}–${to} s`).toBe(true)
    }
    // Every pause of the script that is long enough to be one, seen as one.
    said.slice(1).forEach(([next], i) => {
      const end = said[i]?.[1] ?? 0
      if (next - end < 0.5) return
      const middle = ((end + next) / 2) * 1e6
      expect(
        found.some((s) => s.fromMicros <= middle && middle < s.toMicros),
        `${file}: a pause at ${middle / 1e6} s`,
      ).toBe(false)
    })
    await page.getByRole('link', { name: 'Shelf', exact: true }).click()
  }
})

/** Speech probabilities of every part that has been listened to, in the order of the store. */
function speechRows(page: Page): Promise<number[][]> {
  return inDatabase(page, async (db, done) => {
    const all = (await done(db.transaction('analyses').objectStore('analyses').getAll())) as {
      recordingId: string
      kind: string
      part: { speech: Uint8Array }
    }[]
    const id = decodeURIComponent(location.pathname.split('/').pop() ?? '')
    return all.filter((p) => p.kind === 'sound' && p.recordingId === id).map((p) => [...p.part.speech])
  })
}

test('what was found and decided is there after a reload, and looking through goes on where it was', async ({
  page,
}) => {
  await page.goto('/?demo')
  await toSpot(page, 'Open day call')
  await lookedThrough(page)
  await page.keyboard.press('Shift+ArrowRight')
  await page.keyboard.press('m')
  await expect(moments(page).filter({ hasText: 'your mark' })).toHaveAttribute('data-state', 'kept')
  await page.keyboard.press('n')
  await expect(moments(page).filter({ hasText: 'your mark' })).toHaveAttribute('data-state', 'dropped')
  const before = await moments(page).allInnerTexts()
  await untilKept(page)
  await page.reload()
  await expect(moments(page).filter({ hasText: 'your mark' })).toHaveAttribute('data-state', 'dropped')
  await expect.poll(() => moments(page).allInnerTexts()).toEqual(before)
  await page.keyboard.press('Control+z')
  await expect(moments(page).filter({ hasText: 'your mark' })).toHaveAttribute('data-state', 'kept')
})

test('the bands are zoomed and panned with wheel, mouse and keys, and a moment’s edges are dragged', async ({
  page,
}) => {
  await page.goto('/?demo')
  await toSpot(page, 'Ridge Cup, heat 3')
  await lookedThrough(page)
  const facts = () => page.getByRole('heading', { name: 'Magnified' }).locator('..').innerText()
  const band = page.getByTestId('stretch-band')
  const whole = await facts()
  await band.hover()
  await page.mouse.wheel(0, -600)
  await expect.poll(facts).not.toBe(whole)
  const zoomed = await facts()
  await page.mouse.wheel(300, 0)
  await expect.poll(facts).not.toBe(zoomed)
  await page.keyboard.press('-')
  await page.keyboard.press('-')
  await page.keyboard.press('-')
  await page.keyboard.press('-')
  await expect.poll(facts).toBe(whole)

  await moments(page).first().click()
  const edge = page.getByRole('slider', { name: 'In point of the moment' })
  const before = Number(await edge.getAttribute('aria-valuenow'))
  const box = await edge.boundingBox()
  if (!box) throw new Error('no edge')
  await page.mouse.move(box.x + 6, box.y + 100)
  await page.mouse.down()
  await page.mouse.move(box.x + 46, box.y + 100, { steps: 5 })
  await page.mouse.up()
  await expect.poll(async () => Number(await edge.getAttribute('aria-valuenow'))).toBeGreaterThan(before + 0.5)
  const dragged = Number(await edge.getAttribute('aria-valuenow'))
  await page.keyboard.press('ArrowLeft')
  await expect.poll(async () => Number(await edge.getAttribute('aria-valuenow'))).toBeCloseTo(dragged - 1 / 60, 3)
})

test('marks made elsewhere are read, what cannot be read is shown by line, and moments are written as CSV, WebVTT and EDL', async ({
  page,
}) => {
  await addFiles(page, made('chapters.mkv'))
  await toSpot(page, 'chapters')
  const menu = async (item: string | RegExp) => {
    await page.getByRole('button', { name: 'Marks' }).click()
    await page.getByRole('menuitem', { name: item }).click()
  }
  await menu('Take 3 chapters of the file')
  await expect(moments(page).filter({ hasText: 'Final glide' })).toBeVisible()
  const list = test.info().outputPath('marks.csv')
  writeFileSync(list, 'time,label\n0:02,Cloud street\nsoon,Broken\n90,Too late\n')
  const chooser = page.waitForEvent('filechooser')
  await menu(/^Read CSV/)
  await (await chooser).setFiles(list)
  const report = page.getByRole('dialog')
  await expect(report).toContainText('1 mark read from “marks.csv”; 2 lines not')
  await expect(report).toContainText('Line 3: a time in “soon, Broken” cannot be read.')
  await expect(report).toContainText('Line 4: “90, Too late” lies beyond the end of the recording.')
  await report.getByRole('button', { name: 'Close' }).click()
  await expect(moments(page).filter({ hasText: 'Cloud street' })).toBeVisible()
  for (const [name, ending, pattern] of [
    ['Write as CSV', 'csv', /time,end,label\r\n/],
    ['Write as WebVTT chapters', 'vtt', /^WEBVTT\n\n/],
    [/^Write as EDL/, 'edl', /^TITLE: chapters\r\nFCM: NON-DROP FRAME/],
  ] as const) {
    const download = page.waitForEvent('download')
    await menu(name)
    const saved = await download
    expect(saved.suggestedFilename()).toBe(`chapters.${ending}`)
    const text = readFileSync(await saved.path(), 'utf8')
    expect(text).toMatch(pattern)
    expect(text).toContain('Final glide')
  }
})

test('chapters written by ffmpeg into MP4 and Matroska are found', async ({ page }) => {
  await addFiles(page, made('chapters.mp4'))
  await toSpot(page, 'chapters')
  await page.getByRole('button', { name: 'Marks' }).click()
  await page.getByRole('menuitem', { name: 'Take 3 chapters of the file' }).click()
  await expect(moments(page).filter({ hasText: 'Winch launch' })).toBeVisible()
})
