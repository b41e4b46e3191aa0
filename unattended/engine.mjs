// The application's own render engine for scripts: a server in this process, headless Chromium, and the page that has
// no interface.
import { existsSync, mkdirSync, statfsSync } from 'node:fs'
import { createServer } from 'node:http'
import { tmpdir } from 'node:os'
import { setTimeout as delay } from 'node:timers/promises'
import { CHROMIUM_ARGS } from '../scripts/chromium.mjs'
import { root } from '../scripts/commands.mjs'
import { Unusable } from './command.mjs'
import { makeTemporaryFolder, removeTemporaryFolder } from './temporaryFolders.mjs'

/** The browser, or its page, has ended under what it was asked. */
export class EngineGone extends Error {}

/** Where systems put a Chromium; `--chromium` or BRIMBLE_CHROMIUM names another. */
const USUAL_PLACES = [
  '/usr/bin/chromium',
  '/usr/bin/chromium-browser',
  '/snap/bin/chromium',
  '/usr/bin/google-chrome',
  '/Applications/Chromium.app/Contents/MacOS/Chromium',
  '/Applications/Google Chrome.app/Contents/MacOS/Google Chrome',
  'C:\\Program Files\\Google\\Chrome\\Application\\chrome.exe',
]

/** Files on their way lie in such a folder beside the finished ones, so that a whole one only has to be renamed. */
const PARTS = '.brimble-parts'
const PROFILE = 'brimble-profile'

function findChromium(named) {
  const found = [named, process.env.BRIMBLE_CHROMIUM, ...USUAL_PLACES].find((path) => path && existsSync(path))
  if (named && found !== named) throw new Unusable(`there is no browser at ${named}`)
  if (!found) throw new Unusable('no Chromium was found; name one with --chromium <path>')
  return found
}

async function serve() {
  process.env.NEXT_TELEMETRY_DISABLED = '1'
  // What a command gives out is its own: the server's words go where errors go.
  console.log = console.info = (...words) => console.error(...words)
  const { default: next } = await import('next')
  const app = next({ dev: false, dir: root, hostname: 'localhost' })
  await app.prepare()
  const server = createServer(app.getRequestHandler())
  await new Promise((resolve, reject) => server.once('error', reject).listen(0, 'localhost', resolve))
  const { port } = server.address()
  // Pages are only answered under this server's own name (src/server/ownPages.ts).
  process.env.PORT = String(port)
  return { address: `http://localhost:${port}`, close: () => (server.closeAllConnections(), server.close()) }
}

/** Whatever is closed has so long for it. */
const CLOSES_WITHIN_MS = 10_000

/** Lets the render worker call V8's collector (src/media/render/collecting.ts). */
const COLLECTABLE = '--js-flags=--expose-gc'

/**
 * Starts the engine. `out`: folder of finished files, made if it is not there; without one, where the system keeps
 * what passes. Needs a build (scripts/prepare.mjs makes one). Whoever opens it calls `close`. `browserSession()` is
 * for measuring. `session()` gives a page of its own: `plan(files, wish)`, `alone(at)`, `render(at, ids, needs,
 * onTold)`, `fetch(id, name)`, `forget(id)`, `cancel()`, `close()`; files and what is told are as in
 * src/features/unattended.
 */
export async function openEngine({ out, chromium: named }) {
  const executablePath = findChromium(named)
  if (out) mkdirSync(out, { recursive: true })
  const parts = makeTemporaryFolder(PARTS, out ?? tmpdir())
  const profile = makeTemporaryFolder(PROFILE)
  const closers = [() => removeTemporaryFolder(parts), () => removeTemporaryFolder(profile)]
  let closed = null
  const close = () =>
    (closed ??= (async () => {
      // A browser that has broken down may never say that it is closed.
      for (const one of closers.splice(0).reverse())
        await Promise.race([Promise.resolve(one()).catch(() => {}), delay(CLOSES_WITHIN_MS)])
    })())
  try {
    const { address, close: closeServer } = await serve()
    closers.push(closeServer)
    const { chromium } = await import('playwright-core')
    // Interrupts are this process's to answer.
    const context = await chromium.launchPersistentContext(profile, {
      executablePath,
      args: [...CHROMIUM_ARGS, COLLECTABLE],
      baseURL: address,
      downloadsPath: parts,
      handleSIGINT: false,
      handleSIGTERM: false,
      handleSIGHUP: false,
    })
    closers.push(() => context.close())
    return {
      session: () => openSession(context, parts),
      browserSession: async () =>
        context.browser()?.newBrowserCDPSession() ?? context.newCDPSession(context.pages()[0]),
      close,
    }
  } catch (error) {
    await close()
    throw error
  }
}

async function openSession(context, parts) {
  const page = await context.newPage()
  page.setDefaultTimeout(0)
  let told = async () => {}
  await page.exposeFunction('brimbleTold', (what) => told(what))
  await page.goto('/unattended')
  await page.waitForFunction(() => window.brimbleUnattended)
  const crashed = new Promise((_resolve, reject) => {
    page.once('crash', () => reject(new EngineGone('the browser broke down, perhaps for want of memory')))
    page.once('close', () => reject(new EngineGone('the browser was closed')))
    context.once('close', () => reject(new EngineGone('the browser was closed')))
  })
  crashed.catch(() => {})
  const call = (name, ...args) =>
    Promise.race([page.evaluate(([name, args]) => window.brimbleUnattended[name](...args), [name, args]), crashed])
  return {
    plan: async (files, wish) => {
      await page.getByLabel('Highlights').setInputFiles(files)
      return call('plan', wish).catch((error) => {
        const nonsense = /TypeError: (.*)/.exec(error.message)
        throw nonsense ? new Unusable(nonsense[1]) : error
      })
    },
    /** A planned edit as the text of a file of its own. */
    alone: (at) => call('alone', at),
    /** A name as a file name: the same function that names what a person renders. */
    fileSafe: (name) => call('fileSafe', name),
    /** `needs`: `{ id, path }` of what the highlight needs. */
    render: async (at, ids, needs, onTold) => {
      told = onTold
      await page.getByLabel('Recordings').setInputFiles(needs.map((n) => n.path))
      await call(
        'render',
        at,
        ids,
        needs.map((n) => n.id),
      )
    },
    /**
     * The path of a whole copy of `{ name, sizeBytes }`, the caller's to move. Rejects with code ENOSPC when there is
     * no room for it.
     */
    fetch: async (id, { name, sizeBytes }) => {
      // A browser that finds no room only says that it has cancelled.
      const hasRoom = () => {
        const { bavail, bsize } = statfsSync(parts)
        return bavail * bsize > sizeBytes
      }
      const noRoom = () => Object.assign(new Error('the disk is full'), { code: 'ENOSPC' })
      if (!hasRoom()) throw noRoom()
      const [download] = await Promise.all([page.waitForEvent('download'), call('download', id, name)])
      const failure = await download.failure()
      if (failure) throw hasRoom() ? new Error(failure) : noRoom()
      return download.path()
    },
    forget: (id) => call('forget', id),
    cancel: () => call('cancel'),
    close: () => page.close(),
  }
}
