// Brimble in headless Chromium with a profile on the disk, for measuring: used by `npm run bench` and `npm run score`.
import { spawn } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium } from '@playwright/test'
import { NO_GPU_ARGS } from './chromium.mjs'
import { freePort, root } from './commands.mjs'
import { ensureBuild, ensureModules, ensurePrograms } from './prepare.mjs'

/** Installs and builds what is missing, starts the server and a browser. Whoever opens it calls `close`. */
export async function openBrimble(firstPort) {
  await ensureModules()
  await ensurePrograms()
  await ensureBuild()
  const port = await freePort(firstPort)
  const server = spawn(
    process.execPath,
    ['node_modules/next/dist/bin/next', 'start', '-p', String(port), '-H', 'localhost'],
    { cwd: root, stdio: 'ignore' },
  )
  for (
    let tries = 0;
    tries < 50 &&
    !(await fetch(`http://localhost:${port}`).then(
      (r) => r.ok,
      () => false,
    ));
    tries++
  )
    await new Promise((r) => setTimeout(r, 200))
  const profile = mkdtempSync(join(tmpdir(), 'brimble-measure-'))
  const context = await chromium.launchPersistentContext(profile, {
    executablePath: '/usr/bin/chromium',
    args: NO_GPU_ARGS,
    baseURL: `http://localhost:${port}`,
    viewport: { width: 1280, height: 800 },
  })
  const page = context.pages()[0] ?? (await context.newPage())
  // The picker of handles needs a person; the plain dialog does not.
  await page.addInitScript(() => Reflect.deleteProperty(window, 'showOpenFilePicker'))
  const browserSession = (await context.browser()?.newBrowserCDPSession()) ?? (await context.newCDPSession(page))
  return {
    page,
    browserSession,
    close: async () => {
      await context.close()
      server.kill()
      rmSync(profile, { recursive: true, force: true })
    },
  }
}

/** Puts files on the Shelf through its file dialog. */
export async function addToShelf(page, ...files) {
  await page.goto('/')
  const chooser = page.waitForEvent('filechooser')
  await page.getByRole('button', { name: 'Add recordings' }).first().click()
  await (await chooser).setFiles(files)
}
