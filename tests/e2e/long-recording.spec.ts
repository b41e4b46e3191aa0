import { chromium, expect, test } from '@playwright/test'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { NO_GPU_ARGS } from '../../scripts/chromium.mjs'
import { toBench } from '../support/brimble'
import { makeTwoHours } from '../support/makeRecordings'

/** A picture of the test pattern; the same place before its first frame is drawn comes to a tenth of this. */
const DRAWN_BYTES = 8000

// How long this takes and how much memory is measured by `npm run bench first-picture`.
test('two hours of 1080p are opened, cut to their very end and played from there', async () => {
  test.setTimeout(300_000)
  const file = makeTwoHours()
  // An ordinary test context keeps its storage in memory: this one keeps it on the disk, as a person's browser does.
  const profile = mkdtempSync(join(tmpdir(), 'brimble-long-'))
  const context = await chromium.launchPersistentContext(profile, {
    executablePath: '/usr/bin/chromium',
    args: NO_GPU_ARGS,
    baseURL: test.info().project.use.baseURL ?? '',
    viewport: { width: 1280, height: 800 },
  })
  try {
    const page = context.pages()[0] ?? (await context.newPage())
    const drawn = () =>
      expect
        .poll(async () => (await page.getByTestId('shape-tall').screenshot()).length, { intervals: [200] })
        .toBeGreaterThan(DRAWN_BYTES)
    await toBench(page, file, 'two-hours')
    await drawn()
    await page.getByRole('button', { name: 'Settings of passage 1' }).click()
    const out = page.getByRole('textbox', { name: 'Out point' })
    await out.fill('7199')
    await out.press('Enter')
    await page.keyboard.press('Escape')
    await page.keyboard.press('End')
    await expect(page.getByTestId('clock')).toHaveText('1:59:58.96')
    await drawn()
  } finally {
    await context.close()
    rmSync(profile, { recursive: true, force: true })
  }
})
