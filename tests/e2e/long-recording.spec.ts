import { chromium, expect, test, type BrowserContext, type Page } from '@playwright/test'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromiumArgs } from '../../playwright.config'
import { toBench } from '../support/brimble'
import { made, makeTwoHours } from '../support/makeRecordings'
import { peakMemoryMb } from '../support/tabMemory.mjs'

/** A picture of the test pattern; the same place before its first frame is drawn comes to a tenth of this. */
const DRAWN_BYTES = 8000

/** What tables of a recording six hundred times as long may take, MB. */
const MOST_GROWTH_MB = 250

const drawn = (page: Page) => expect.poll(async () => (await page.getByTestId('shape-tall').screenshot()).length, { intervals: [200] }).toBeGreaterThan(DRAWN_BYTES)

/** Runs `work` in a browser with its profile on the disk, as a person's has: an ordinary test context keeps all storage in memory. Gives the tab's peak memory. */
async function inBrowser(work: (page: Page) => Promise<void>): Promise<number> {
  const profile = mkdtempSync(join(tmpdir(), 'brimble-long-'))
  const context: BrowserContext = await chromium.launchPersistentContext(profile, { executablePath: '/usr/bin/chromium', args: chromiumArgs, baseURL: test.info().project.use.baseURL ?? '', viewport: { width: 1280, height: 800 } })
  try {
    await work(context.pages()[0] ?? (await context.newPage()))
    const browserSession = await context.browser()?.newBrowserCDPSession()
    if (!browserSession) throw new Error('no session')
    return await peakMemoryMb(browserSession)
  } finally {
    await context.close()
    rmSync(profile, { recursive: true, force: true })
  }
}

test('two hours of 1080p take hardly more memory than twelve seconds; any place is reached, and all is there after a reload', async () => {
  test.setTimeout(300_000)
  const short = await inBrowser(async (page) => {
    await toBench(page, made('pattern.mp4'), 'pattern')
    await drawn(page)
    await page.keyboard.press('End')
    await drawn(page)
    await page.waitForTimeout(3000)
  })
  const long = await inBrowser(async (page) => {
    await toBench(page, makeTwoHours(), 'two-hours')
    await drawn(page)
    await page.getByRole('button', { name: 'Numbers of passage 1' }).click()
    const out = page.getByRole('textbox', { name: 'Out point' })
    await out.fill('7199')
    await out.press('Enter')
    await page.keyboard.press('Escape')
    await page.keyboard.press('End')
    await expect(page.getByTestId('clock')).toHaveText('1:59:58.96')
    await drawn(page)
    await page.waitForTimeout(3000)
  })
  expect(long, `twelve seconds: ${short.toFixed(0)} MB`).toBeLessThan(short + MOST_GROWTH_MB)
})
