// Browsers killed at random moments of seeded work: what was done and is not there afterwards, and whether anything
// came in by halves.
import { spawn, spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as delay } from 'node:timers/promises'
import { chromium } from '@playwright/test'
import { NO_GPU_ARGS } from '../../scripts/chromium.mjs'
import { inDatabase } from '../support/inDatabase.mjs'
import { seeded } from './scenes.mjs'

const SEED = Number(process.env.SEED ?? 20261129)
/**
 * How many browsers are killed: in mid-edit, of those with four busy loops beside them, and over each way of bringing
 * something in.
 */
const EDIT_KILLS = Number(process.env.EDIT_KILLS ?? 100)
const BUSY_SHARE = 0.25
const BRING_IN_KILLS = Number(process.env.BRING_IN_KILLS ?? 20)

/** A finished act that is older than this when its browser is killed has to be there. */
const SAFE_AFTER_MS = 100
/** Writing that takes longer than this is to be shown. */
const SHOWN_AFTER_MS = 1000

const RECORDING = 'public/demo/field-dawn.mp4'

/** A browser with a profile on the disk that can be killed like any process. */
async function openBrowser(profile, baseURL) {
  const context = await chromium.launchPersistentContext(profile, {
    executablePath: '/usr/bin/chromium',
    args: NO_GPU_ARGS,
    baseURL,
    viewport: { width: 1280, height: 800 },
    acceptDownloads: true,
  })
  const page = context.pages()[0] ?? (await context.newPage())
  await page.addInitScript(() => Reflect.deleteProperty(window, 'showOpenFilePicker'))
  const pids = spawnSync('pgrep', ['-f', profile], { encoding: 'utf8' })
    .stdout.trim()
    .split('\n')
    .map(Number)
    .filter((pid) => pid !== process.pid)
  return {
    page,
    close: () => context.close(),
    kill: async () => {
      const at = Date.now()
      for (const pid of pids) {
        try {
          process.kill(pid, 'SIGKILL')
        } catch {
          // It has ended by itself meanwhile.
        }
      }
      await context.close().catch(() => {})
      return at
    },
  }
}

/** What the browser's database holds, without the application. */
function stored(page) {
  return inDatabase(page, async (db, done) => {
    const names = ['recordings', 'files', 'highlights', 'setups', 'layouts', 'undo', 'imageFiles', 'soundFiles']
    const transaction = db.transaction(names)
    const [recordings, files, highlights, setups, layouts, undo, ...rack] = await Promise.all(
      names.map((name) => done(transaction.objectStore(name).getAll())),
    )
    return {
      recordings: recordings.map(({ id, sizeBytes, source }) => ({ id, sizeBytes, source })),
      files: files.map(({ owner, kind, blob }) => ({ owner, kind, size: blob?.size ?? 0 })),
      highlights: highlights.map(({ id, passages }) => ({
        id,
        setups: passages.map((p) => p.setupId),
        layouts: passages.map((p) => p.layoutId),
        recordings: passages.map((p) => p.recordingId),
      })),
      setups: setups.map(({ id }) => id),
      layouts: layouts.map(({ id }) => id),
      images: rack.flat().map(({ id, sizeBytes }) => ({ id, sizeBytes })),
      steps: Object.fromEntries(undo.map(({ owner, steps }) => [owner, steps.length])),
    }
  })
}

async function addRecordings(page, ...files) {
  await page.goto('/')
  const chooser = page.waitForEvent('filechooser')
  await page.getByRole('button', { name: 'Add recordings' }).first().click()
  await (await chooser).setFiles(files)
}

const drawn = (page) =>
  page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(() => done(Date.now())))))

/** Things that a person does on the Bench; each is one step of its history. */
const ACTS = [
  async function dragRegion(page, random) {
    const region = page.locator('[data-testid=frame-picture] [data-role=game]').first()
    const box = await region.boundingBox()
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2]
    await page.mouse.move(x, y)
    await page.mouse.down()
    const sideways = (random.next() < 0.5 ? -1 : 1) * random.integer(6, 24)
    for (let n = 1; n <= 4; n++) await page.mouse.move(x + (sideways * n) / 4, y)
    await page.mouse.up()
  },
  async function typeEdge(page, random) {
    const field = page.getByLabel('Game left', { exact: true })
    const was = Number(await field.inputValue())
    await field.fill(String(was > 400 ? was - 2 * random.integer(10, 90) : was + 2 * random.integer(10, 90)))
    await field.press('Enter')
  },
  async function toggleShape(page, random) {
    await page
      .getByRole('group', { name: 'Shapes of this highlight' })
      .getByRole('button', { name: random.pick(['square', 'portrait', 'wide']), exact: true })
      .click()
  },
  async function name(page, random) {
    const field = page.getByLabel('Name of the highlight')
    await field.fill(`Gate ${random.integer(1, 1e9)}`)
    await field.press('Enter')
  },
]

/** Kills a browser in mid-edit. What was done for sure, and when its screen had it; how much of it is there. */
async function editKill({ profile, baseURL, highlight, random, busy }) {
  const { page, kill } = await openBrowser(profile, baseURL)
  const loops = busy
    ? Array.from({ length: 4 }, () => spawn(process.execPath, ['-e', 'for(;;){}'], { stdio: 'ignore' }))
    : []
  const acts = []
  const shown = []
  try {
    await page.exposeBinding('brimbleSaving', (_, on, at) => shown.push({ on, at }))
    await page.goto(`/highlight/${highlight}`)
    await page
      .getByRole('img', { name: /^Result, / })
      .first()
      .waitFor({ timeout: 120_000 })
    await page.evaluate(() => {
      const told = () => window.brimbleSaving(document.body.innerText.includes('Saving…'), Date.now())
      new MutationObserver(told).observe(document.body, { childList: true, subtree: true, characterData: true })
    })
    const before = (await stored(page)).steps[highlight] ?? 0
    let isOver = false
    const work = (async () => {
      while (!isOver) {
        await random.pick(ACTS)(page, random)
        acts.push(await drawn(page))
      }
    })().catch(() => {})
    await delay(random.integer(300, busy ? 8000 : 4000))
    const killedAt = await kill()
    isOver = true
    await work
    return { before, acts, killedAt, shown }
  } finally {
    for (const loop of loops) loop.kill('SIGKILL')
  }
}

async function editKills(baseURL) {
  const profile = mkdtempSync(join(tmpdir(), 'brimble-kills-'))
  const random = seeded(SEED)
  const result = { kills: 0, acts: 0, lost: 0, lostLate: 0, hidden: 0, unopened: 0, oldest: 0 }
  let highlight = null
  for (let n = 0; n < EDIT_KILLS; n++) {
    // A history keeps 300 steps: a new highlight before it is full.
    if (n % 8 === 0) {
      const { page, close } = await openBrowser(profile, baseURL)
      await addRecordings(page, RECORDING)
      await page.getByRole('button', { name: 'Cut a highlight from field-dawn' }).first().click()
      await page.getByRole('img', { name: 'Result, tall' }).waitFor()
      highlight = page.url().split('/').at(-1)
      await close()
    }
    const busy = n % Math.round(1 / BUSY_SHARE) === 3
    const { before, acts, killedAt, shown } = await editKill({ profile, baseURL, highlight, random, busy })
    const { page, close } = await openBrowser(profile, baseURL)
    await page.goto(`/highlight/${highlight}`)
    const opened = await page
      .getByRole('img', { name: /^Result, / })
      .first()
      .waitFor({ timeout: 60_000 })
      .then(
        () => true,
        () => false,
      )
    const kept = ((await stored(page)).steps[highlight] ?? 0) - before
    const canUndo = kept === 0 || (await page.getByRole('button', { name: 'Undo', exact: true }).isEnabled())
    await close()
    const lost = acts.slice(Math.max(0, kept)).map((at) => killedAt - at)
    result.kills++
    result.acts += acts.length
    result.lost += lost.length
    if (!busy) result.lostLate += lost.filter((age) => age > SAFE_AFTER_MS).length
    result.oldest = Math.max(result.oldest, ...lost.filter(() => !busy), 0)
    // What was lost after long was told of: it was being written, and that was to be seen.
    const seen = shown.findLast((s) => s.at <= killedAt)?.on ?? false
    if (lost.some((age) => age > SHOWN_AFTER_MS + 200) && !seen) result.hidden++
    if (!opened || !canUndo) result.unopened++
  }
  rmSync(profile, { recursive: true, force: true })
  return result
}

/** Whether everything that is there is there as a whole. */
function isWhole({ recordings, files, highlights, setups, layouts, images }) {
  const hasBytes = ({ id, sizeBytes }) =>
    files.some((f) => f.owner === id && (f.kind === 'linked' || f.size === sizeBytes))
  const ids = new Set(recordings.map((r) => r.id))
  return (
    recordings.every(hasBytes) &&
    images.every(hasBytes) &&
    files.every((f) => ids.has(f.owner) || images.some((i) => i.id === f.owner)) &&
    highlights.every(
      (h) =>
        h.setups.every((s) => setups.includes(s)) &&
        h.layouts.every((l) => layouts.includes(l)) &&
        h.recordings.every((r) => ids.has(r)),
    )
  )
}

/**
 * Kills browsers over `begin(page)`, each in an empty profile; how many had some of it and not all. `isAll`: whether
 * what is stored is all of it.
 */
async function bringInKills(baseURL, begin, latestMs, isAll) {
  const random = seeded(SEED + 1)
  const result = { kills: 0, halves: 0, whole: 0, nothing: 0 }
  for (let n = 0; n < BRING_IN_KILLS; n++) {
    const profile = mkdtempSync(join(tmpdir(), 'brimble-kills-'))
    const { page, kill } = await openBrowser(profile, baseURL)
    await begin(page)
    await delay(random.integer(0, latestMs))
    await kill()
    const next = await openBrowser(profile, baseURL)
    await next.page.goto('/')
    await next.page.getByRole('button', { name: 'Add recordings' }).first().waitFor()
    const now = await stored(next.page)
    await next.close()
    rmSync(profile, { recursive: true, force: true })
    result.kills++
    const isNothing = now.recordings.length + now.highlights.length + now.files.length === 0
    if (!isWhole(now) || (!isNothing && !isAll(now))) result.halves++
    else if (isNothing) result.nothing++
    else result.whole++
  }
  return result
}

/** A bundle and a backup, made by the application itself. */
async function makeFiles(baseURL, dir) {
  const profile = mkdtempSync(join(tmpdir(), 'brimble-kills-'))
  const { page, close } = await openBrowser(profile, baseURL)
  await addRecordings(page, RECORDING, 'public/demo/field-winch.mp4')
  await page.getByRole('button', { name: 'Cut a highlight from field-winch' }).click()
  await page.getByRole('img', { name: 'Result, tall' }).waitFor()
  const save = async (act, name) => {
    const [download] = await Promise.all([page.waitForEvent('download', { timeout: 60_000 }), act()])
    await download.saveAs(join(dir, name))
    return join(dir, name)
  }
  const bundle = await save(async () => {
    await page.getByRole('button', { name: 'Export' }).click()
    await page.getByRole('menuitem', { name: /^Bundle with whole recordings/ }).click()
  }, 'work.brimble.zip')
  await page.getByRole('link', { name: 'Shelf' }).click()
  const backup = await save(async () => {
    await page.getByRole('button', { name: 'More', exact: true }).click()
    await page.getByRole('menuitem', { name: /^Back up the Shelf/ }).click()
    await page
      .getByRole('dialog')
      .getByRole('button', { name: /^Back up/ })
      .click()
  }, 'shelf.zip')
  await close()
  rmSync(profile, { recursive: true, force: true })
  return { bundle, backup }
}

export async function kills(shared) {
  await shared.goto('/')
  const baseURL = new URL(shared.url()).origin
  const dir = mkdtempSync(join(tmpdir(), 'brimble-kills-'))
  const { bundle, backup } = await makeFiles(baseURL, dir)
  const edits = await editKills(baseURL)
  const added = await bringInKills(
    baseURL,
    (page) => addRecordings(page, RECORDING, 'public/demo/field-winch.mp4', 'public/demo/field-dusk.mp4'),
    1500,
    (now) => now.recordings.length > 0,
  )
  const bundled = await bringInKills(
    baseURL,
    (page) => addRecordings(page, bundle),
    1200,
    (now) => now.highlights.length === 1 && now.recordings.length === 1,
  )
  const restored = await bringInKills(
    baseURL,
    async (page) => {
      await addRecordings(page, backup)
      await page.getByRole('button', { name: 'Put back' }).click({ timeout: 30_000 })
    },
    250,
    (now) => now.highlights.length === 1 && now.recordings.length === 2,
  )
  rmSync(dir, { recursive: true, force: true })
  const halves = (name, r) => ({
    figure: r.halves,
    unit: `of ${r.kills} kills over ${name} left a part`,
    bar: 0,
    met: r.halves === 0,
    detail: `${r.whole} whole, ${r.nothing} nothing`,
  })
  return [
    {
      figure: edits.lostLate,
      unit: `finished acts older than ${SAFE_AFTER_MS} ms lost in ${edits.kills} kills`,
      bar: 0,
      met: edits.lostLate === 0,
      detail: `of ${edits.acts} acts ${edits.lost} were lost, the oldest ${edits.oldest} ms, seed ${SEED}`,
    },
    {
      figure: edits.hidden,
      unit: 'kills lost what had been written for over a second without a word',
      bar: 0,
      met: edits.hidden === 0,
    },
    {
      figure: edits.unopened,
      unit: 'highlights did not open again with their history',
      bar: 0,
      met: edits.unopened === 0,
    },
    halves('added recordings', added),
    halves('a bundle', bundled),
    halves('a backup', restored),
  ]
}
