import { expect, test, type BrowserContext, type Page } from '@playwright/test'
import { execFileSync } from 'node:child_process'
import { mkdtempSync, readdirSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { carry, moveCut, SMALL, toBench, watchForErrors } from '../support/brimble'
import { ffprobe, lumaOfFrames, sound } from '../support/ffmpeg'
import { made } from '../support/makeRecordings'
import { SEED, seeded } from '../support/seeded'

/** A highlight of two seconds in three shapes. */
async function shortHighlight(page: Page): Promise<void> {
  await toBench(page, made('pattern.mp4'), 'pattern')
  await moveCut(page, 'Out point', -10)
  for (const shape of ['portrait', 'square']) await page.getByRole('button', { name: shape, exact: true }).click()
}

async function render(
  page: Page,
  choose: (dialog: ReturnType<Page['getByRole']>) => Promise<void> = async () => {},
): Promise<void> {
  await page.getByRole('button', { name: 'Render', exact: true }).click()
  const dialog = page.getByRole('dialog')
  await pick(page, 'Frame rate', '24 fps')
  await pick(page, 'Size', SMALL)
  await choose(dialog)
  await dialog.getByRole('button', { name: /^Render \d files?/ }).click()
  await expect(dialog).toHaveCount(0)
}

async function pick(page: Page, label: string, option: string): Promise<void> {
  await page.getByRole('dialog').getByLabel(label, { exact: true }).click()
  await page.getByRole('option', { name: option, exact: true }).click()
}

async function unzipped(page: Page): Promise<string[]> {
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: /^Save \d+ as one zip/ }).click()
  const folder = mkdtempSync(join(tmpdir(), 'brimble-zip-'))
  const zip = join(folder, 'all.zip')
  await (await download).saveAs(zip)
  execFileSync('python3', ['-m', 'zipfile', '-e', zip, join(folder, 'out')])
  return readdirSync(join(folder, 'out')).map((name) => join(folder, 'out', name))
}

/** The tab dies as by a crash: no code of the page runs any more. */
async function crash(context: BrowserContext, page: Page): Promise<void> {
  const session = await context.newCDPSession(page)
  const gone = page.waitForEvent('crash')
  session.send('Page.crash').catch(() => {})
  await gone
  await page.close()
}

/** How many frames of the files at work are made; no end of them when all files are. */
async function framesMade(page: Page): Promise<number> {
  if ((await page.locator('article[data-state=finished]').count()) === 6) return Infinity
  const told = await page.getByText(/^frame \d+ of/).allInnerTexts()
  return Math.max(0, ...told.map((words) => Number(/\d+/.exec(words)?.[0])))
}

test(`of a queue of six whose tab is killed three times, six whole files come out (seed ${SEED})`, async ({
  page,
  context,
}) => {
  test.setTimeout(240_000)
  await shortHighlight(page)
  await render(page)
  await render(page)
  const random = seeded(SEED)
  let open = page
  await page.getByRole('link', { name: 'Outbox' }).click()
  for (let kill = 0; kill < 3; kill++) {
    const frame = random.integer(1, 40)
    await expect.poll(() => framesMade(open), { intervals: [50], timeout: 60_000 }).toBeGreaterThanOrEqual(frame)
    await crash(context, open)
    open = await context.newPage()
    await open.goto('/outbox')
    await expect(open.getByRole('article')).toHaveCount(6)
  }
  await expect(open.locator('article[data-state=finished]')).toHaveCount(6, { timeout: 150_000 })
  const files = await unzipped(open)
  expect(new Set(files).size).toBe(6)
  expect(files).toHaveLength(6)
  for (const file of files) expect(lumaOfFrames(file)).toHaveLength(48)
  const heights = files.map((f) => ffprobe(f).video.height).sort((a = 0, b = 0) => a - b)
  expect(heights).toEqual([720, 720, 900, 900, 1280, 1280])
})

test('one of three that are made in one go is taken back on the way; the others come out whole, with their sound', async ({
  page,
}) => {
  await toBench(page, made('pattern.mp4'), 'pattern')
  await moveCut(page, 'Out point', -6)
  for (const shape of ['portrait', 'square']) await page.getByRole('button', { name: shape, exact: true }).click()
  await render(page)
  await page.getByRole('link', { name: 'Outbox' }).click()
  const portrait = page.getByRole('article', { name: /portrait/ })
  await expect(portrait).toHaveAttribute('data-state', 'running')
  await expect(page.getByText(/^frame \d+ of 144/).first()).toBeVisible()
  await portrait.getByRole('button', { name: 'Cancel' }).click()
  await expect(page.locator('article[data-state=finished]')).toHaveCount(2, { timeout: 120_000 })
  for (const file of await unzipped(page)) {
    expect(lumaOfFrames(file)).toHaveLength(144)
    expect(sound(file).length / 48000).toBeCloseTo(6, 1)
  }
  // Their sound was coded once: whose encoder that was is true of both.
  const facts = await page.locator('article[data-state=finished]').allInnerTexts()
  expect(new Set(facts.map((f) => f.includes('sound by Brimble’s own AAC encoder'))).size).toBe(1)
})

test('held, put into another order by keyboard, let go on; names follow the pattern and files go to the folder', async ({
  page,
}) => {
  const errors = watchForErrors(page)
  await shortHighlight(page)
  // The picker of folders needs a person; the browser's private folder is as good a folder as any.
  await page.evaluate(() => {
    window.showDirectoryPicker = async () =>
      (await navigator.storage.getDirectory()).getDirectoryHandle('chosen', { create: true })
  })
  await page.getByRole('link', { name: 'Outbox' }).click()
  await expect(page.getByRole('heading', { name: 'No files yet' })).toBeVisible()
  await page.goBack()
  await render(page, (dialog) => dialog.getByRole('checkbox', { name: /^tall/ }).uncheck())
  await page.getByRole('link', { name: 'Outbox' }).click()
  await page.getByRole('button', { name: 'Pause the queue' }).click()
  await page.goBack()
  await render(page)
  await page.getByRole('link', { name: 'Outbox' }).click()

  await page.getByRole('button', { name: 'Settings…' }).click()
  const names = page.getByRole('textbox', { name: 'Names' })
  await names.fill('{shape} {colour}')
  await expect(page.getByText('There is no {colour}.')).toBeVisible()
  await names.fill('{shape} of {highlight}')
  await page.getByRole('button', { name: 'Choose a folder' }).click()
  await expect(page.getByText('Each finished file is put into “chosen”')).toBeVisible()
  await page.getByRole('button', { name: 'Keep', exact: true }).click()

  const waiting = page.locator('article[data-state=waiting]')
  const first = await waiting.first().getAttribute('aria-label')
  const handle = page.getByRole('button', { name: /number 1 in the queue/ })
  await handle.focus()
  await carry(page, 'ArrowDown')
  await expect(waiting.first()).not.toHaveAttribute('aria-label', first ?? '')
  await page.getByRole('button', { name: 'Go on' }).click()
  await expect(page.locator('article[data-state=finished]')).toHaveCount(5, { timeout: 90_000 })
  const saved = () =>
    page.evaluate(async () => {
      const folder = await (await navigator.storage.getDirectory()).getDirectoryHandle('chosen')
      const names: string[] = []
      for await (const name of folder.keys()) names.push(name)
      return names.sort()
    })
  await expect
    .poll(saved)
    .toEqual([
      'portrait of pattern, cut 1 (2).mp4',
      'portrait of pattern, cut 1.mp4',
      'square of pattern, cut 1 (2).mp4',
      'square of pattern, cut 1.mp4',
      'tall of pattern, cut 1.mp4',
    ])
  errors.expectNone()
})

test('other codings, sizes, a still, a loop and a loudness are what they say; settings are kept as a preset', async ({
  page,
}) => {
  const errors = watchForErrors(page)
  await shortHighlight(page)
  await render(page, async (dialog) => {
    for (const shape of [/^tall/, /^portrait/]) await dialog.getByRole('checkbox', { name: shape }).uncheck()
    await pick(page, 'Codec', 'VP9 in WebM')
    await pick(page, 'Loudness', 'Normalised to −16 LUFS')
    await dialog.getByRole('checkbox', { name: /save a still/ }).check()
    await dialog.getByRole('checkbox', { name: /save a loop/ }).check()
    await expect(dialog.getByRole('note')).toHaveText(
      'VP9 and Opus in WebM. The quality is held, whatever size that takes.',
    )
    await page.getByRole('button', { name: 'Presets' }).click()
    await page.getByRole('textbox', { name: 'Keep these settings as' }).fill('Chat loop')
    await page.getByRole('textbox', { name: 'Keep these settings as' }).press('Enter')
    await expect(page.getByRole('menuitem', { name: 'Chat loop' })).toBeVisible()
    await page.keyboard.press('Escape')
    await expect(page.getByRole('button', { name: 'Preset: Chat loop' })).toBeVisible()
  })
  await page.getByRole('link', { name: 'Outbox' }).click()
  const row = page.locator('article[data-state=finished]')
  await expect(row).toHaveCount(1, { timeout: 60_000 })
  await expect(row).toContainText('with a still and a loop')
  const downloads: { name: string; path: string }[] = []
  page.on('download', (d) => void d.path().then((path) => downloads.push({ name: d.suggestedFilename(), path })))
  await row.getByRole('button', { name: 'Save' }).click()
  await expect.poll(() => downloads.length).toBe(3)
  const of = (ending: string) => downloads.find((d) => d.name.endsWith(ending))?.path ?? ''
  expect(ffprobe(of('.webm')).video).toMatchObject({ codec_name: 'vp9', width: 720, height: 720 })
  expect(ffprobe(of('.webm')).audio).toMatchObject({ codec_name: 'opus' })
  expect(ffprobe(of('.png')).video).toMatchObject({ codec_name: 'png', width: 720, height: 720 })
  expect(ffprobe(of('.gif')).video).toMatchObject({ codec_name: 'gif', width: 320, height: 320 })
  errors.expectNone()
})

test('a finished file opens as it was, whatever became of the highlight since', async ({ page }) => {
  await shortHighlight(page)
  await render(page, async (dialog) => {
    for (const shape of [/^portrait/, /^square/]) await dialog.getByRole('checkbox', { name: shape }).uncheck()
    await pick(page, 'Codec', 'VP9 in MP4')
  })
  await moveCut(page, 'Out point', 5)
  await page.getByRole('link', { name: 'Outbox' }).click()
  await expect(page.locator('article[data-state=finished]')).toContainText('VP9 and Opus in MP4', { timeout: 60_000 })
  await page.getByRole('button', { name: /^More for/ }).click()
  await page.getByRole('menuitem', { name: 'Open as it was, as a copy' }).click()
  await expect(page.getByRole('img', { name: 'Result, tall' })).toBeVisible()
  await expect(page.getByText('0:02.00', { exact: true }).first()).toBeVisible()
})

test('a phone picks a file up with the code, and not without', async ({ page, browser }) => {
  const errors = watchForErrors(page)
  await shortHighlight(page)
  await render(page, async (dialog) => {
    for (const shape of [/^portrait/, /^square/]) await dialog.getByRole('checkbox', { name: shape }).uncheck()
  })
  await page.getByRole('link', { name: 'Outbox' }).click()
  await expect(page.locator('article[data-state=finished]')).toHaveCount(1, { timeout: 60_000 })
  await page.getByRole('button', { name: 'To the phone…' }).click()
  await page.getByRole('button', { name: /^Share 1/ }).click()
  const code = ((await page.getByLabel('Code', { exact: true }).textContent()) ?? '').replace(' ', '')
  expect(code).toMatch(/^[A-HJKMNP-Z2-9]{8}$/)
  const address =
    (await page
      .getByText(/^http:\/\/[\d.]+:\d+$/)
      .first()
      .textContent()) ?? ''
  // What is on the network is on this machine too, whichever of its addresses a browser here may reach.
  const here = address.replace(/\/\/[\d.]+:/, '//127.0.0.1:')

  const phone = await browser.newContext({
    viewport: { width: 390, height: 780 },
    isMobile: true,
    hasTouch: true,
    acceptDownloads: true,
  })
  const hand = await phone.newPage()
  await hand.goto(here)
  await hand.getByLabel('Code').fill('AAAA2222')
  await hand.getByRole('button', { name: 'Go on' }).click()
  await expect(hand.getByRole('alert')).toHaveText('That is not the code.')
  await hand.getByLabel('Code').fill(code.toLowerCase())
  await hand.getByRole('button', { name: 'Go on' }).click()
  await expect(hand.getByRole('heading', { name: 'pattern, cut 1 tall 1.mp4' })).toBeVisible()
  await expect.poll(() => hand.locator('video').evaluate((v: HTMLVideoElement) => v.readyState)).toBeGreaterThan(0)
  expect(await hand.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth)).toBe(true)
  const download = hand.waitForEvent('download')
  await hand.getByRole('link', { name: 'Save' }).click()
  expect(ffprobe(await (await download).path()).video).toMatchObject({ codec_name: 'h264', width: 720, height: 1280 })

  await page.getByRole('button', { name: 'Stop sharing' }).click()
  await expect(page.getByRole('button', { name: /^Share 1/ })).toBeVisible()
  await expect(hand.goto(`${here}/c/${code}`)).rejects.toThrow()
  errors.expectNone()
  await phone.close()
})
