import { expect, test, type Page, type Route } from '@playwright/test'
import { addFiles, renderAndSave, SMALL, toBench, watchForErrors } from '../support/brimble'
import { ffprobe, pixelAt } from '../support/ffmpeg'
import { inDatabase } from '../support/inDatabase.mjs'
import { made } from '../support/makeRecordings'

const REFUSED: readonly [string, RegExp][] = [
  ['empty.mp4', /“empty\.mp4” is empty \(0 bytes\)/],
  ['notes.mp4', /“notes\.mp4” is not a video that Brimble can read/],
  ['sound-only.mp4', /“sound-only\.mp4” holds sound but no picture/],
  ['hevc.mp4', /“hevc\.mp4” is coded as H\.265 \(HEVC\), which this browser cannot decode/],
  ['mpeg4.mp4', /“mpeg4\.mp4” is coded as MPEG-4 Part 2/],
  ['cut-short.mp4', /“cut-short\.mp4” was cut off before it was finished/],
  ['hdr.mp4', /“hdr\.mp4” is an HDR recording/],
  ['encrypted.mp4', /“encrypted\.mp4” is encrypted/],
  ['mpeg2.ts', /“mpeg2\.ts” is coded as MPEG-2/],
  ['old.avi', /“old\.avi” is of a kind that Brimble does not read \(AVI\)/],
]

/** What can be used and is not quite what its owner may think, with what is said of it. */
const TOLD: readonly [string, RegExp][] = [
  ['begins-between.mkv', /^Starts in the middle: its first .* cannot be decoded and are not used\./],
  ['three-tracks.mkv', /3 sound tracks; only “Mix” is heard\./],
  ['interlaced.mp4', /^May be interlaced/],
  ['size-changes.mp4', /^Its picture changes to 320 × 240 part-way/],
  ['restarts.ts', /^Its clock started again part-way/],
]

test('files that cannot be used are each named with the reason; the good one among them is added', async ({ page }) => {
  await addFiles(page, ...REFUSED.map(([file]) => made(file)), made('silent.mp4'))
  await expect(page.getByRole('article', { name: 'silent' })).toBeVisible()
  for (const [, message] of REFUSED) await expect(page.getByRole('alert').filter({ hasText: message })).toBeVisible()
  await expect(page.getByRole('article')).toHaveCount(1)
})

test('what is not quite as its owner may think is used, and says so', async ({ page }) => {
  const errors = watchForErrors(page)
  await addFiles(page, ...TOLD.map(([file]) => made(file)))
  for (const [file, words] of TOLD) {
    const row = page.getByRole('article', { name: file.replace(/\.\w+$/, '') })
    await expect(row.getByText(words).first()).toBeVisible()
  }
  errors.expectNone()
})

for (const [file, name] of [
  ['restarts.ts', 'restarts'],
  ['size-changes.mp4', 'size-changes'],
] as const)
  test(`${file} is rendered to its end, every frame as large as the first`, async ({ page }) => {
    const errors = watchForErrors(page)
    await toBench(page, made(file), name)
    const { path } = await renderAndSave(page, { size: SMALL })
    const { video } = ffprobe(path)
    expect(Math.abs(Number(video.nb_read_frames) - 180)).toBeLessThanOrEqual(2)
    // The pattern's edges: where a part is drawn smaller, its ground shows.
    for (const seconds of [1, 5])
      for (const x of [8, Number(video.width) - 8]) {
        const lower = pixelAt(path, seconds, x, Math.round(Number(video.height) * 0.55))
        expect(Math.max(...lower), `${seconds} s, ${x} px`).toBeGreaterThan(60)
      }
    errors.expectNone()
  })

test('a recording that was cut off is used as far as it goes, and says so', async ({ page }) => {
  const errors = watchForErrors(page)
  await toBench(page, made('half.mp4'), 'half')
  await page.getByRole('link', { name: 'Shelf' }).click()
  await expect(page.getByText(/^Cut off after \d s: its index promises 8 s\.$/)).toBeVisible()
  await page.getByRole('link', { name: /^half, cut 1/ }).click()
  const { path } = await renderAndSave(page)
  const seconds = Number(ffprobe(path).format.duration)
  expect(seconds).toBeGreaterThan(2)
  expect(seconds).toBeLessThan(7)
  errors.expectNone()
})

test('a recording damaged in the middle ends with the place where it cannot be read, and the edit is kept', async ({
  page,
}) => {
  await toBench(page, made('damaged.mp4'), 'damaged')
  await page.getByRole('button', { name: 'Render', exact: true }).click()
  await page.getByRole('button', { name: /^Render 1 file/ }).click()
  await page.getByRole('link', { name: 'Outbox' }).click()
  const row = page.locator('article[data-state]').first()
  await expect(row).toHaveAttribute('data-state', 'failed', { timeout: 60_000 })
  // Half-way through the file's bytes, of six seconds that are much alike.
  await expect(row.getByRole('alert')).toContainText(/“damaged\.mp4” cannot be decoded at 0:0[2-4]/)
  await page.getByRole('link', { name: 'Shelf' }).click()
  await expect(page.getByRole('link', { name: /^damaged, cut 1/ })).toBeVisible()
})

test('a recording whose file is gone is asked for by name, refuses another, takes the right one', async ({ page }) => {
  await toBench(page, made('silent.mp4'), 'silent')
  const bench = page.url()
  await inDatabase(page, (db, done) => done(db.transaction('files', 'readwrite').objectStore('files').clear()))
  await page.goto(bench)
  await expect(page.getByRole('heading', { name: '“silent.mp4” is missing' })).toBeVisible()
  const choose = async (file: string) => {
    const chooser = page.waitForEvent('filechooser')
    await page.getByRole('button', { name: 'Choose the file again' }).click()
    await (await chooser).setFiles(made(file))
  }
  await choose('phone.mp4')
  await expect(page.getByRole('alert').filter({ hasText: 'it is another file. Nothing was changed.' })).toBeVisible()
  await choose('silent.mp4')
  await expect(page.getByRole('img', { name: 'Result, tall' })).toBeVisible()
})

test('no room in the browser’s storage is said, and the recording can be worked on all the same', async ({ page }) => {
  await page.addInitScript(() => {
    const put = Object.getOwnPropertyDescriptor(IDBObjectStore.prototype, 'put')?.value as (
      value: unknown,
      key?: IDBValidKey,
    ) => unknown
    IDBObjectStore.prototype.put = function (this: IDBObjectStore, value: unknown, key?: IDBValidKey) {
      if (this.name === 'files') throw new DOMException('full', 'QuotaExceededError')
      return Reflect.apply(put, this, key === undefined ? [value] : [value, key]) as IDBRequest<IDBValidKey>
    }
  })
  await addFiles(page, made('silent.mp4'))
  await expect(
    page.getByRole('alert').filter({ hasText: 'There is no room in the browser’s storage for a copy of “silent.mp4”' }),
  ).toBeVisible()
  await page.getByRole('button', { name: 'Cut a highlight from silent' }).click()
  await expect(page.getByRole('img', { name: 'Result, tall' })).toBeVisible()
})

const CHUNKS = '**/_next/static/chunks/**'

/** The worker's own disk calls write nothing, as a full disk does without a word. */
const FULL_DISK = 'if(self.FileSystemSyncAccessHandle)FileSystemSyncAccessHandle.prototype.write=()=>0;'
const NO_ENCODER = 'if(self.VideoEncoder)VideoEncoder.isConfigSupported=async(config)=>({supported:false,config});'

/** Hands out the render worker's program with `script` before it. */
const beforeRendering = (script: string) => async (route: Route) => {
  // A connection that the server has let go of meanwhile is asked again.
  const response = await route.fetch({ maxRetries: 3 })
  const body = await response.text()
  await route.fulfill({ response, body: body.includes('createSyncAccessHandle') ? script + body : body })
}

test('a disk that fills up in mid-render leaves nothing behind but the reason, and retry works', async ({
  page,
  context,
}) => {
  await context.route(CHUNKS, beforeRendering(FULL_DISK))
  await toBench(page, made('silent.mp4'), 'silent')
  await page.getByRole('button', { name: 'Render', exact: true }).click()
  await page.getByRole('button', { name: /^Render 1 file/ }).click()
  await page.getByRole('link', { name: 'Outbox' }).click()
  await expect(page.getByRole('alert').filter({ hasText: 'The browser’s storage is full' })).toBeVisible({
    timeout: 60_000,
  })
  expect(await privateFiles(page)).toEqual([])
  await context.unroute(CHUNKS)
  await page.reload()
  await page.getByRole('button', { name: 'Retry' }).click()
  await expect(page.locator('article[data-state]').first()).toHaveAttribute('data-state', 'finished', {
    timeout: 60_000,
  })
})

/**
 * Has the browser keep nothing in `store` that is in one of the states which the function is told, or nothing at all
 * when it is told `all`.
 */
async function fillUp(page: Page, store: string): Promise<(what: string | null) => Promise<void>> {
  await page.addInitScript((store) => {
    for (const name of ['put', 'add'] as const) {
      const write = Object.getOwnPropertyDescriptor(IDBObjectStore.prototype, name)?.value as (
        value: unknown,
        key?: IDBValidKey,
      ) => unknown
      IDBObjectStore.prototype[name] = function (
        this: IDBObjectStore,
        value: { state?: { kind: string } },
        key?: IDBValidKey,
      ) {
        const full = localStorage.getItem('full')?.split(' ') ?? []
        const what = value.state?.kind ?? ''
        if (this.name === store && (full.includes('all') || full.includes(what))) {
          localStorage.setItem('refused', what)
          throw new DOMException('full', 'QuotaExceededError')
        }
        return Reflect.apply(write, this, key === undefined ? [value] : [value, key]) as IDBRequest<IDBValidKey>
      }
    }
  }, store)
  return (what) =>
    page.evaluate(
      (what) => (what === null ? localStorage.removeItem('full') : localStorage.setItem('full', what)),
      what,
    )
}

test('a file that is whole and cannot be noted down as such has failed for want of room, and the queue goes on', async ({
  page,
}) => {
  const full = await fillUp(page, 'renders')
  await toBench(page, made('silent.mp4'), 'silent')
  await full('finished')
  await page.getByRole('button', { name: 'Render', exact: true }).click()
  await page.getByRole('button', { name: /^Render 1 file/ }).click()
  await page.getByRole('link', { name: 'Outbox' }).click()
  await expect(page.getByRole('alert').filter({ hasText: 'The browser’s storage is full' })).toBeVisible({
    timeout: 60_000,
  })
  // Not even that can be noted down: it is begun anew when there is room again, without anybody asking.
  await full('finished failed')
  await page.getByRole('button', { name: 'Retry' }).click()
  const row = page.locator('article[data-state]').first()
  await expect(row).toHaveAttribute('data-state', 'running')
  await expect(page.getByText(/^frame \d+ of \d+/)).toBeVisible({ timeout: 30_000 })
  await expect.poll(() => page.evaluate(() => localStorage.getItem('refused')), { timeout: 60_000 }).toBe('failed')
  await full(null)
  await expect(row).toHaveAttribute('data-state', 'finished', { timeout: 90_000 })
})

test('what there is no room to keep is said, and can be done again when there is', async ({ page }) => {
  const full = await fillUp(page, 'outlets')
  await page.goto('/rack')
  const duplicates = page.getByRole('button', { name: /^Duplicate / })
  await expect(duplicates.first()).toBeVisible()
  const before = await duplicates.count()
  await full('all')
  await duplicates.first().click()
  await expect(page.getByRole('alert').filter({ hasText: 'what you just did could not be kept' })).toBeVisible()
  await expect(duplicates).toHaveCount(before)
  await full(null)
  await duplicates.first().click()
  await expect(duplicates).toHaveCount(before + 1)
})

test('a size that the encoder refuses is said', async ({ page, context }) => {
  await context.route(CHUNKS, beforeRendering(NO_ENCODER))
  await toBench(page, made('silent.mp4'), 'silent')
  await page.getByRole('button', { name: 'Render', exact: true }).click()
  await page.getByRole('button', { name: /^Render 1 file/ }).click()
  await page.getByRole('link', { name: 'Outbox' }).click()
  await expect(page.getByRole('alert').filter({ hasText: 'This browser has no encoder for 1080 × 1920' })).toBeVisible()
})

test('what fails while a page is being left was interrupted: it is begun anew, and fails only when it does so again', async ({
  page,
  context,
}) => {
  await context.route(CHUNKS, beforeRendering(NO_ENCODER))
  await toBench(page, made('silent.mp4'), 'silent')
  await page.evaluate(() => window.dispatchEvent(new Event('pagehide')))
  await page.getByRole('button', { name: 'Render', exact: true }).click()
  await page.getByRole('button', { name: /^Render 1 file/ }).click()
  await page.getByRole('link', { name: 'Outbox' }).click()
  await expect(page.getByRole('alert').filter({ hasText: 'This browser has no encoder for 1080 × 1920' })).toBeVisible({
    timeout: 30_000,
  })
  const renders = await inDatabase(
    page,
    async (db, done) =>
      (await done(db.transaction('renders').objectStore('renders').getAll())) as { interruptions: number }[],
  )
  expect(renders.map((r) => r.interruptions)).toEqual([1])
})

test('a render that is cancelled leaves nothing behind; one cut short by a closed tab is made again by itself', async ({
  page,
  context,
}) => {
  await toBench(page, made('pattern.mp4'), 'pattern')
  await page.getByRole('button', { name: 'Render', exact: true }).click()
  await page.getByRole('button', { name: /^Render 1 file/ }).click()
  await page.getByRole('link', { name: 'Outbox' }).click()
  await expect(page.getByText(/^frame \d+ of 720/)).toBeVisible()
  await page.getByRole('button', { name: 'Cancel' }).click()
  await expect(page.getByRole('heading', { name: 'No files yet' })).toBeVisible()
  expect(await privateFiles(page)).toEqual([])

  await page.goBack()
  await page.getByRole('button', { name: 'Render', exact: true }).click()
  await page.getByRole('button', { name: /^Render 1 file/ }).click()
  await page.getByRole('link', { name: 'Outbox' }).click()
  await expect(page.getByText(/^frame \d+ of 720/)).toBeVisible()
  await page.close({ runBeforeUnload: false })
  const again = await context.newPage()
  await again.goto('/outbox')
  await expect(again.getByText(/^frame \d+ of 720/)).toBeVisible()
  expect(await privateFiles(again)).toHaveLength(1)
  await again.getByRole('button', { name: 'Cancel' }).click()
  await expect(again.getByRole('heading', { name: 'No files yet' })).toBeVisible()
  expect(await privateFiles(again)).toEqual([])
})

/** Names in the browser's private folder of renders. */
function privateFiles(page: Page): Promise<string[]> {
  return page.evaluate(async () => {
    const root = await navigator.storage.getDirectory()
    const names: string[] = []
    for await (const name of (await root.getDirectoryHandle('renders', { create: true })).keys()) names.push(name)
    return names
  })
}
