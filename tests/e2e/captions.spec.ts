import { expect, test, type Page } from '@playwright/test'
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Highlight } from '@/core/model/highlight'
import { storeCopies, storedHighlight, toBench, toDemoBench, untilKept, watchForErrors } from '../support/brimble'
import { ffmpeg, onset, sound, ssim } from '../support/ffmpeg'
import { made, SPOKEN } from '../support/makeRecordings'
import { makeWhisper } from '../support/makeWhisper'

const DEMO = 'public/demo/ridge-cup-stream.vtt'

async function readFile(page: Page, path: string): Promise<void> {
  await page.getByRole('button', { name: 'Captions', exact: true }).click()
  const chooser = page.waitForEvent('filechooser')
  await page.getByRole('menuitem', { name: /^Read WebVTT/ }).click()
  await (await chooser).setFiles(path)
}

const captions = (page: Page) => page.getByRole('textbox', { name: /^Caption/ })
const caption = (page: Page, text: string) => captions(page).and(page.locator(`:text-is("${text}")`))

test('captions are read, corrected by keyboard alone, undone, kept over a reload and written again', async ({
  page,
}) => {
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
  await untilKept(page)
  await page.reload()
  await expect(corrected).toBeVisible()
  await page.getByRole('button', { name: 'Captions', exact: true }).click()
  const download = page.waitForEvent('download')
  await page.getByRole('menuitem', { name: 'Save as WebVTT' }).click()
  const written = readFileSync(await (await download).path(), 'utf8')
  expect(written).toContain('00:00:06.500 --> 00:00:07.960\n<v Wren>Oh! The lift is right here! Hold on.')
  errors.expectNone()
})

test('a file that holds no captions changes nothing and says so; one with faults is read and told of by line', async ({
  page,
}) => {
  const errors = watchForErrors(page)
  await toDemoBench(page)
  const folder = mkdtempSync(join(tmpdir(), 'brimble-vtt-'))
  writeFileSync(join(folder, 'list.srt'), 'bread, rope, tea')
  await readFile(page, join(folder, 'list.srt'))
  await expect(page.getByText(/There are no captions in “list.srt”/)).toBeVisible()
  await expect(captions(page)).toHaveCount(0)
  writeFileSync(
    join(folder, 'faults.vtt'),
    'WEBVTT\n\n00:12.000 --> 00:11.000\nbackwards\n\n00:11.000 --> 00:13.000\n<img src=x onerror=alert(1)>Kept\n',
  )
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
  const known = [...script.matchAll(/00:00:(\d+\.\d+) --> 00:00:(\d+\.\d+)\n<v Wren>(.+)/g)].map(
    ([, from, to, text]) => ({ from: Number(from), to: Number(to), text: text ?? '' }),
  )
  const here = known.filter((k) => k.to > 10.5 && k.from < 24.5)
  expect(here.length).toBeGreaterThan(3)
  await page.getByRole('button', { name: 'Captions', exact: true }).click()
  await page.getByRole('menuitem', { name: 'Blank captions at speech' }).click()
  await expect(captions(page).first()).toBeVisible({ timeout: 90_000 })
  await page.getByRole('button', { name: 'Captions', exact: true }).click()
  await page.getByRole('menuitem', { name: 'Paste a transcript…' }).click()
  await page.getByRole('textbox', { name: 'Text' }).fill(here.map((k) => k.text).join(' '))
  await page.getByRole('button', { name: 'Line up' }).click()
  await expect(caption(page, here[0]?.text ?? '')).toBeVisible({ timeout: 90_000 })
  await page.getByRole('button', { name: 'Captions', exact: true }).click()
  const download = page.waitForEvent('download')
  await page.getByRole('menuitem', { name: 'Save as WebVTT' }).click()
  const written = readFileSync(await (await download).path(), 'utf8')
  for (const { from, text } of here) {
    const [, start = 'none'] =
      new RegExp(`00:00:(\\d+\\.\\d+) --> [\\d:.]+\\n${text.replace(/[.?!]/g, '\\$&')}`).exec(written) ?? []
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
  await page.getByRole('button', { name: 'Add title' }).click()
  await page.getByRole('textbox', { name: 'Title', exact: true }).fill('No lift, last gate')
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
    await page
      .locator('article[data-state="finished"]')
      .filter({ hasText: shape })
      .getByRole('button', { name: 'Save' })
      .click()
    await (await download).saveAs(join(folder, `${shape}.mp4`))
    ffmpeg(
      '-i',
      join(folder, `${shape}.mp4`),
      '-vf',
      "select='eq(n,3)'",
      '-frames:v',
      '1',
      join(folder, `${shape}.png`),
    )
  }
  await page.goBack()
  await expect(page.getByRole('img', { name: 'Result, tall' })).toBeVisible()
  await page.keyboard.press('h')
  await page.keyboard.press('Home')
  for (let i = 0; i < 6; i++) await page.keyboard.press('ArrowRight')
  for (const shape of ['tall', 'portrait', 'square']) {
    await page.getByRole('button', { name: `Enlarge ${shape}` }).click()
    const likeness = async () => {
      const seen = await page.getByRole('img', { name: `Result, ${shape}` }).screenshot()
      writeFileSync(join(folder, 'seen.png'), seen)
      return ssim(
        join(folder, 'seen.png'),
        ['-i', join(folder, `${shape}.png`)],
        `[1:v]scale=${seen.readUInt32BE(16)}:${seen.readUInt32BE(20)}:flags=area[ref]`,
      )
    }
    await expect.poll(likeness, { message: shape, timeout: 10_000 }).toBeGreaterThan(0.98)
    await page.getByRole('button', { name: 'Back to all shapes' }).click()
  }
  errors.expectNone()
})

/**
 * Loudness of sound in steps of 5 ms, dB, from `at` seconds on; `stretch` seconds of it are a second of what it is
 * compared with.
 */
function loudness(samples: Float32Array, at: number, steps: number, stretch = 1): number[] {
  return Array.from({ length: steps }, (_, i) => {
    const from = Math.round((at + i * 0.005 * stretch) * 48_000)
    let sum = 0
    for (let n = from; n < from + 480; n++) sum += (samples[n] ?? 0) ** 2
    return 10 * Math.log10(sum / 480 + 1e-7)
  })
}

function likeness(a: readonly number[], b: readonly number[]): number {
  const mean = (v: readonly number[]) => v.reduce((x, y) => x + y, 0) / v.length
  const [ma, mb] = [mean(a), mean(b)]
  const sum = (f: (i: number) => number) => a.reduce((s, _, i) => s + f(i), 0)
  return (
    sum((i) => ((a[i] ?? 0) - ma) * ((b[i] ?? 0) - mb)) /
    Math.sqrt(sum((i) => ((a[i] ?? 0) - ma) ** 2) * sum((i) => ((b[i] ?? 0) - mb) ** 2) + 1e-9)
  )
}

test('captions stay with what is said: dead air struck out, one passage at 150 %; burnt in nowhere, in files beside the video', async ({
  page,
}) => {
  test.setTimeout(300_000)
  const errors = watchForErrors(page)
  await toDemoBench(page)
  await page.goto('/')
  // All of the stream in two passages; the first begins with its first frame, the second is faster.
  const { passages } = await storedHighlight<{ passages: { id: string }[] }>(page, 'demo-last-gate')
  const [one] = passages
  await storeCopies(page, 'demo-last-gate', [
    {
      id: 'whole-stream',
      name: 'Whole stream',
      shapes: [{ id: 'own', width: 270, height: 480 }],
      passages: [
        { ...one, id: 'p1', inMicros: 0, outMicros: 21_800_000 },
        { ...one, id: 'p2', inMicros: 21_800_000, outMicros: 40_000_000, speedPercent: 150 },
      ],
    },
  ])
  await page.goto('/highlight/whole-stream')
  await expect(page.getByRole('img', { name: 'Result, own' })).toBeVisible()
  await page.getByRole('button', { name: 'Captions', exact: true }).click()
  await page.getByRole('menuitem', { name: 'Read “ridge-cup-stream.vtt”, found beside it' }).click()
  await page.getByRole('button', { name: 'Dead air' }).click()
  const status = page.getByRole('group', { name: 'Dead air' }).getByRole('status')
  await expect(status).toHaveText(/\d+ pauses, [\d.]+ s/, { timeout: 60_000 })
  expect(Number(/([\d.]+) s/.exec((await status.textContent()) ?? '')?.[1])).toBeGreaterThan(3)
  await page.getByRole('button', { name: 'Strike out all' }).click()
  await page.getByRole('button', { name: 'Render', exact: true }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('Frame rate').click()
  await page.getByRole('option', { name: '30 fps', exact: true }).click()
  await dialog.getByLabel('Captions').click()
  await page.getByRole('option', { name: 'In a separate file' }).click()
  await dialog.getByRole('button', { name: 'Render 1 file' }).click()
  await page.getByRole('link', { name: 'Outbox' }).click()
  const row = page.locator('article[data-state]').first()
  await expect(row).toHaveAttribute('data-state', 'finished', { timeout: 110_000 })
  const folder = mkdtempSync(join(tmpdir(), 'brimble-beside-'))
  const saved: string[] = []
  page.on(
    'download',
    (download) =>
      void download
        .saveAs(join(folder, download.suggestedFilename()))
        .then(() => saved.push(download.suggestedFilename())),
  )
  await row.getByRole('button', { name: 'Save' }).click()
  await expect.poll(() => saved.length).toBe(3)
  expect(saved.map((name) => name.replace(/.*\./, '')).sort()).toEqual(['mp4', 'srt', 'vtt'])
  const named = (ending: string) => join(folder, saved.find((name) => name.endsWith(ending)) ?? '')
  const heard = sound(named('mp4'))
  const recorded = sound('public/demo/ridge-cup-stream.mp4')
  const script = [...readFileSync(DEMO, 'utf8').matchAll(/00:00:(\d+\.\d+) --> .*\n<v Wren>(.+)/g)].map(
    ([, from, text]) => ({ from: Number(from), text: text ?? '' }),
  )
  const written = [...readFileSync(named('vtt'), 'utf8').matchAll(/00:00:(\d+\.\d+) --> .*\n<v Wren>(.+)/g)].map(
    ([, from, text]) => ({ from: Number(from), text: text ?? '' }),
  )
  expect(written.map((w) => w.text)).toEqual(script.map((s) => s.text))
  script.forEach(({ from, text }, i) => {
    const stretch = from < 21.8 ? 1 : 1.5
    const cue = written[i]?.from ?? NaN
    // Where its first half second is heard in the file: the best likeness of loudness within 0.3 s of what the
    // captions say.
    const said = loudness(recorded, from - 0.03, Math.round(100 / stretch), stretch)
    const places = Array.from({ length: 121 }, (_, n) => (n - 60) * 0.005).map((by) => ({
      by,
      like: likeness(said, loudness(heard, cue - 0.03 / stretch + by, said.length)),
    }))
    const best = places.sort((a, b) => b.like - a.like)[0]
    expect(best?.like, text).toBeGreaterThan(0.8)
    expect(Math.abs(best?.by ?? 1), `“${text}” at ${cue} s is heard ${best?.by} s away`).toBeLessThanOrEqual(0.06)
  })
  errors.expectNone()
})

test('a model in a folder of one’s own writes what is said; another folder is refused and says why', async ({
  page,
}) => {
  test.setTimeout(120_000)
  const errors = watchForErrors(page)
  await toDemoBench(page)
  const sentences = [
    { text: 'Low save.', from: 0.5, to: 2 },
    { text: 'Find lift now!', from: 2.5, to: 4.5 },
  ]
  await page.getByRole('button', { name: 'Captions', exact: true }).click()
  await page.getByRole('menuitem', { name: /^Transcribe with your own model/ }).click()
  const dialog = page.getByRole('dialog', { name: /^Transcribe/ })
  const choose = async (folder: string) => {
    const chooser = page.waitForEvent('filechooser')
    await dialog.getByRole('button', { name: /folder…$/ }).click()
    await (await chooser).setFiles(folder)
  }
  await choose('public/demo')
  await expect(dialog.getByRole('alert')).toContainText('it lacks config.json')
  await choose(makeWhisper(sentences))
  await expect(dialog.getByText('Folder “little-whisper”')).toBeVisible()
  await expect(dialog.getByLabel('Language spoken')).toContainText('English')
  await dialog.getByRole('button', { name: 'Transcribe' }).click()
  await expect(dialog).toHaveCount(0, { timeout: 60_000 })
  await expect(caption(page, 'Low save.').first()).toBeVisible()
  // What was heard in a span lies at the span's place of the recording, each word inside its sentence.
  const { words } = await storedHighlight<Highlight>(page, 'demo-last-gate')
  const [low, find] = words.cues
  expect(low?.words.map((w) => w.text)).toEqual(['Low', 'save.'])
  expect(find?.text).toBe('Find lift now!')
  expect((low?.toMicros ?? 0) - (low?.fromMicros ?? 0)).toBe(1_500_000)
  expect((find?.fromMicros ?? 0) - (low?.fromMicros ?? 0)).toBe(2_000_000)
  await page.keyboard.press('Control+z')
  await expect(caption(page, 'Low save.')).toHaveCount(0)
  errors.expectNone()
})

const keptCues = async (page: Page) =>
  (await storedHighlight<Highlight>(page, new URL(page.url()).pathname.split('/').at(-1) ?? '')).words.cues

test('PocketSphinx on this machine drafts captions; what is pasted instead has every word at its moment', async ({
  page,
}) => {
  test.setTimeout(240_000)
  const errors = watchForErrors(page)
  await toBench(page, made('spoken.mp4'), 'spoken')
  const said = SPOKEN.join(' ').toLowerCase().split(' ')
  await page.getByRole('button', { name: 'Captions', exact: true }).click()
  await page.getByRole('menuitem', { name: 'Draft by PocketSphinx (English)' }).click()
  await expect(page.getByText(/^\d+ lines drafted\. PocketSphinx mishears much/)).toBeVisible({ timeout: 120_000 })
  await expect.poll(async () => (await keptCues(page)).length).toBeGreaterThan(0)
  const drafted = new Set((await keptCues(page)).flatMap((c) => c.text.toLowerCase().split(' ')))
  // By hand the command hears four words in five of such speech.
  expect(said.filter((word) => drafted.has(word)).length).toBeGreaterThan(0.6 * said.length)

  await page.getByRole('button', { name: 'Captions', exact: true }).click()
  await page.getByRole('menuitem', { name: 'Paste a transcript…' }).click()
  await page.getByRole('textbox', { name: 'Text' }).fill(`${SPOKEN.join('. ')}.`)
  await page.getByRole('button', { name: 'Line up' }).click()
  await expect(page.getByText('Every word has the time at which it is heard.')).toBeVisible({ timeout: 90_000 })
  await expect.poll(async () => (await keptCues(page)).map((c) => c.text)).toEqual(SPOKEN.map((text) => `${text}.`))
  const words = (await keptCues(page)).flatMap((c) => c.words)
  expect(words).toHaveLength(said.length)
  // Each line begins where its sound does, six tenths of a second into its part.
  const heard = sound(made('spoken.mp4'))
  let from = 0
  for (const line of await keptCues(page)) {
    const begins = onset(heard, 0.02, from)
    expect(Math.abs((line.words[0]?.fromMicros ?? NaN) / 1e6 - begins), line.text).toBeLessThan(0.1)
    from = (line.words.at(-1)?.toMicros ?? NaN) / 1e6 + 0.3
  }

  // A line that is written in has its words timed anew once it is left, in the step of the writing.
  const [before] = await keptCues(page)
  const shorter = (SPOKEN[0] ?? '').split(' ').slice(0, -1)
  const field = page.getByRole('textbox', { name: 'Caption' }).first()
  await field.fill(shorter.join(' '))
  await field.press('Escape')
  const wordsNow = async () => (await keptCues(page))[0]?.words ?? []
  await expect.poll(async () => (await wordsNow()).length, { timeout: 30_000 }).toBe(shorter.length)
  for (const [i, word] of (await wordsNow()).entries())
    expect(Math.abs(word.fromMicros - (before?.words[i]?.fromMicros ?? NaN)), word.text).toBeLessThan(60_000)
  await page.keyboard.press('Control+z')
  await expect.poll(async () => (await keptCues(page))[0]).toEqual(before)
  errors.expectNone()
})
