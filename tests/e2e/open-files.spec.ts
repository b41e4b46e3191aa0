import { expect, test, type Page } from '@playwright/test'
import { execFileSync } from 'node:child_process'
import { copyFileSync, mkdtempSync, readFileSync, truncateSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import {
  addFiles,
  choosePlainly,
  moveCut,
  renderAndSave,
  setRegion,
  takeLayout,
  toBench,
  watchForErrors,
  SMALL,
} from '../support/brimble'
import { frameTimes, run, ssim } from '../support/ffmpeg'
import { made } from '../support/makeRecordings'

async function handOn(page: Page, item: RegExp): Promise<string> {
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Export' }).click()
  await page.getByRole('menuitem', { name: item }).click()
  const saved = await download
  const path = join(mkdtempSync(join(tmpdir(), 'brimble-hand-')), saved.suggestedFilename())
  await saved.saveAs(path)
  return path
}

/** Two seconds out of the middle, face over game on a blurred copy. */
async function highlight(page: Page): Promise<void> {
  await toBench(page, made('pattern.mp4'), 'pattern')
  await setRegion(page, 'Face', { x: 1340, y: 752, width: 540, height: 304 })
  await setRegion(page, 'Game', { x: 430, y: 30, width: 540, height: 656 })
  await moveCut(page, 'In point', 4)
  await moveCut(page, 'Out point', -6)
}

/**
 * The still that is made with a file: its pixels as they were drawn, before any encoder saw them. Ends on the Bench.
 */
async function still(page: Page): Promise<Buffer> {
  await page.goBack()
  await page.getByRole('button', { name: 'Render', exact: true }).click()
  await page.getByRole('checkbox', { name: /save a still/ }).check()
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Render 1 file/ })
    .click()
  await page.getByRole('link', { name: 'Outbox' }).click()
  const row = page.locator('article[data-state=finished]').filter({ hasText: 'with a still' })
  await expect(row).toHaveCount(1, { timeout: 60_000 })
  const stills: Promise<string>[] = []
  page.on('download', (d) => void (d.suggestedFilename().endsWith('.png') && stills.push(d.path())))
  await row.getByRole('button', { name: 'Save' }).click()
  await expect.poll(() => stills.length).toBe(1)
  return run('ffmpeg', ['-v', 'error', '-i', (await stills[0]) ?? '', '-f', 'rawvideo', '-pix_fmt', 'rgb24', '-'])
}

test('a bundle with what is used, opened in a fresh profile, gives the same frames; so does its timeline', async ({
  page,
  browser,
}) => {
  const errors = watchForErrors(page)
  await highlight(page)
  const zip = await handOn(page, /^Bundle with the footage used/)
  const otio = await handOn(page, /^Timeline/)
  const alone = await handOn(page, /^Edit alone/)
  const here = await renderAndSave(page, { rate: '30 fps', size: SMALL })
  expect(readFileSync(zip).length).toBeLessThan(readFileSync(made('pattern.mp4')).length)

  const elsewhere = await browser.newContext()
  const fresh = await elsewhere.newPage()
  const freshErrors = watchForErrors(fresh)
  await addFiles(fresh, zip)
  await fresh.getByRole('link', { name: /^pattern, cut 1/ }).click()
  await expect(fresh.getByRole('img', { name: 'Result, tall' })).toBeVisible()
  const there = await renderAndSave(fresh, { rate: '30 fps', size: SMALL })
  // Encoders are not the same twice to the bit; what they are given is.
  expect(ssim(there.path, ['-i', here.path], '[1:v]null[ref]')).toBeGreaterThanOrEqual(0.99)
  expect(frameTimes(there.path)).toEqual(frameTimes(here.path))
  expect((await still(fresh)).equals(await still(page))).toBe(true)

  await fresh.goto('/')
  await addFiles(fresh, otio)
  await expect(fresh.getByRole('link', { name: /^pattern, cut 1/ })).toHaveCount(2)
  await addFiles(fresh, alone)
  await expect(fresh.getByRole('link', { name: /^pattern, cut 1/ })).toHaveCount(3)
  errors.expectNone()
  freshErrors.expectNone()
  await elsewhere.close()
})

test('the ffmpeg script gives the same picture as Brimble', async ({ page }) => {
  await highlight(page)
  await takeLayout(page, 'Parted bands')
  const script = await handOn(page, /^ffmpeg script, tall/)
  const { path } = await renderAndSave(page)
  const folder = mkdtempSync(join(tmpdir(), 'brimble-script-'))
  copyFileSync(made('pattern.mp4'), join(folder, 'pattern.mp4'))
  execFileSync('sh', [script, folder, join(folder, 'out.mp4')], { stdio: 'pipe' })
  expect(ssim(path, ['-i', join(folder, 'out.mp4')], '[1:v]null[ref]')).toBeGreaterThanOrEqual(0.95)
})

test('bad zips are refused with the reason, and nothing is changed', async ({ page }) => {
  await choosePlainly(page)
  const folder = mkdtempSync(join(tmpdir(), 'brimble-zips-'))
  const zipOf = (name: string, python: string) => {
    execFileSync('python3', [
      '-c',
      `import zipfile,sys\nz=zipfile.ZipFile(sys.argv[1],'w',zipfile.ZIP_DEFLATED)\n${python}\nz.close()`,
      join(folder, name),
    ])
    return join(folder, name)
  }
  writeFileSync(join(folder, 'text.zip'), 'this is no zip')
  const cut = zipOf('cut.zip', "z.writestr('bundle.json', '{}' * 4000)")
  truncateSync(cut, 60)
  const bad: [string, RegExp][] = [
    [join(folder, 'text.zip'), /“text.zip” was not brought in: it is not a zip/],
    [cut, /“cut.zip” was not brought in: it is not a zip, or was cut off/],
    [
      zipOf('bomb.zip', "z.writestr('bundle.json', b'0' * 50_000_000)"),
      /would unpack to more than a hundred times its size/,
    ],
    [zipOf('out.zip', "z.writestr('../../evil.json', '{}')"), /a file whose name leads out of it/],
    [
      zipOf('newer.zip', 'z.writestr(\'bundle.json\', \'{"brimble":"bundle","version":9,"edits":[{}]}\')'),
      /made by a newer Brimble \(version 9\)/,
    ],
    [zipOf('other.zip', "z.writestr('holiday.txt', 'sun')"), /it is no bundle and no edit of Brimble’s/],
    [
      zipOf('lacking.zip', 'z.writestr(\'bundle.json\', \'{"brimble":"bundle","version":1,"edits":[{}]}\')'),
      /an edit in it cannot be read/,
    ],
  ]
  for (const [file, message] of bad) {
    await addFiles(page, file)
    await expect(page.getByRole('alert').filter({ hasText: message })).toBeVisible()
    await expect(page.getByRole('alert').filter({ hasText: 'Nothing was changed' })).toBeVisible()
  }
  await expect(page.getByRole('link', { name: /cut 1/ })).toHaveCount(0)
})

test('the whole Shelf goes into one file and comes back out of it elsewhere, its recordings and finished files too', async ({
  page,
  browser,
}) => {
  const errors = watchForErrors(page)
  await toBench(page, made('silent.mp4'), 'silent')
  await moveCut(page, 'Out point', -6)
  await setRegion(page, 'Face', { x: 640, y: 352, width: 270, height: 152 })
  const { path } = await renderAndSave(page)
  await page.goto('/')
  await page.getByRole('button', { name: 'More', exact: true }).click()
  await page.getByRole('menuitem', { name: /^Back up the Shelf/ }).click()
  const dialog = page.getByRole('dialog', { name: 'Back up the Shelf' })
  await dialog.getByRole('checkbox', { name: /^With the finished files/ }).check()
  const download = page.waitForEvent('download')
  await dialog.getByRole('button', { name: /^Back up, about/ }).click()
  const backup = join(mkdtempSync(join(tmpdir(), 'brimble-backup-')), 'shelf.zip')
  await (await download).saveAs(backup)
  await expect(dialog.getByRole('alert')).toContainText('Backed up')

  const elsewhere = await browser.newContext()
  const fresh = await elsewhere.newPage()
  const freshErrors = watchForErrors(fresh)
  await addFiles(fresh, backup)
  const restore = fresh.getByRole('dialog', { name: 'Put a backup back' })
  await expect(restore).toContainText('1 recording, 1 highlight, 1 finished file')
  await restore.getByRole('button', { name: 'Put back' }).click()
  await expect(restore.getByRole('alert')).toContainText('put back')
  await restore.getByRole('button', { name: 'Close' }).click()
  await fresh.getByRole('link', { name: /^silent, cut 1/ }).click()
  await expect(fresh.getByRole('img', { name: 'Result, tall' })).toBeVisible()
  await expect(fresh.getByLabel('Face left', { exact: true })).toHaveValue('640')
  await fresh.getByRole('link', { name: 'Outbox' }).click()
  const saved = fresh.waitForEvent('download')
  await fresh.locator('article[data-state=finished]').getByRole('button', { name: 'Save' }).click()
  expect(readFileSync(await (await saved).path()).equals(readFileSync(path))).toBe(true)

  // Cut off on its way: refused, with the reason.
  truncateSync(backup, Math.floor(readFileSync(backup).length / 2))
  await fresh.goto('/')
  await addFiles(fresh, backup)
  await expect(fresh.getByRole('alert').filter({ hasText: 'cut off before its end' })).toBeVisible()
  await elsewhere.close()
  errors.expectNone()
  freshErrors.expectNone()
})
