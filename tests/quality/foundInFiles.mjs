// Footage from outside: what is proposed for each file, and how that compares with the truth that lies beside it.
import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { basename, extname, join } from 'node:path'
import { z } from 'zod'
import { inDatabase } from '../support/inDatabase.mjs'

const VIDEOS = new Set(['.mp4', '.mkv', '.webm', '.mov'])

/**
 * Beside `clip.mp4` lies `clip.json`: what regions there are, px of the frame, what its scene is called, and when scenes
 * change.
 */
const truthFile = z.object({
  regions: z
    .array(z.object({ role: z.string(), x: z.number(), y: z.number(), width: z.number(), height: z.number() }))
    .default([]),
  scene: z.string().optional(),
  /** When scenes change, seconds. */
  sceneChanges: z.array(z.number()).optional(),
})

/** Edges of a face may be so far off: px, or a share of the frame's width. */
const TOLERANCE = { px: 8, share: 0.02 }
/** Anything else counts as found where it shares so much of both areas (over their union). */
const SAME = 0.5

const isPerson = (role) => ['face', 'speaker', 'guest'].includes(role)

/** Roles that tell the same: who counts, not whether they play, talk or are a guest. */
const kindOf = (role) => (isPerson(role) ? 'person' : ['hud', 'chat', 'logo'].includes(role) ? 'display' : role)

export function judgeRegions({ regions }, found, { width, height }) {
  const edges = (r) => [r.x, r.y, r.x + r.width, r.y + r.height]
  const off = (a, b) => Math.max(...edges(a).map((v, i) => Math.abs(v - edges(b)[i])))
  const union = (a, b) => {
    const w = Math.max(0, Math.min(a.x + a.width, b.x + b.width) - Math.max(a.x, b.x))
    const h = Math.max(0, Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y))
    return (w * h) / (a.width * a.height + b.width * b.height - w * h)
  }
  const slack = Math.max(TOLERANCE.px, TOLERANCE.share * Math.max(width, height))
  const people = regions.filter((r) => isPerson(r.role))
  const lists = regions.filter((r) => kindOf(r.role) === 'display')
  const near = (r) => found.filter((f) => union(f, r) >= SAME).sort((a, b) => union(b, r) - union(a, r))[0]
  const matched = regions.map((r) => ({ wanted: r, got: near(r) })).filter((m) => m.got)
  return {
    faces: people.length,
    facesPlaced: people.filter((r) => found.some((f) => isPerson(f.role) && off(f, r) <= slack)).length,
    matched: matched.length,
    rolesRight: matched.filter(({ wanted, got }) => kindOf(wanted.role) === kindOf(got.role)).length,
    noFaces: found.filter((f) => isPerson(f.role) && !people.some((r) => union(f, r) > 0.1)).length,
    lists: lists.length,
    listsFound: lists.filter((r) => kindOf(near(r)?.role ?? '') === 'display').length,
  }
}

/** Puts a file on the Shelf, cuts a highlight from it, and gives that one's id when the Bench shows it. */
export async function openOnBench(page, file) {
  await page.goto('/')
  const name = basename(file, extname(file))
  const chosen = page.waitForEvent('filechooser')
  await page.getByRole('button', { name: 'Add recordings' }).first().click()
  await (await chosen).setFiles([file])
  await page
    .getByRole('button', { name: `Cut a highlight from ${name}` })
    .first()
    .click({ timeout: 60_000 })
  await page.getByRole('img', { name: 'Result, tall' }).waitFor()
  return new URL(page.url()).pathname.split('/').at(-1)
}

/** A chooser that scripts can answer. */
export const withPlainChooser = (page) => page.addInitScript(() => Reflect.deleteProperty(window, 'showOpenFilePicker'))

/**
 * What Brimble proposes for a file, by its own interface: px of a frame of the size that is given too, and how
 * long a frame is, seconds.
 */
export async function proposalsFor(page, file) {
  const id = await openOnBench(page, file)
  const before = await setupOf(page, id)
  // It looks by itself, and sets what is sure.
  await page.getByRole('button', { name: 'Look again' }).waitFor({ timeout: 180_000 })
  await page.waitForTimeout(500)
  const accept = page.getByRole('region', { name: 'Proposed regions' }).getByRole('button', { name: /^Accept (?!all)/ })
  while ((await accept.count()) > 0) await accept.first().click()
  await page.locator('[data-saving="saved"]').waitFor({ state: 'attached' })
  const after = await setupOf(page, id)
  const { width, height, frameRate } = after.video
  const stood = new Set(before.regions.map(({ bounds }) => JSON.stringify(bounds)))
  return {
    size: { width, height },
    frame: frameRate.den / frameRate.num,
    found: after.regions
      .filter(({ bounds }) => !stood.has(JSON.stringify(bounds)))
      .map(({ role, bounds: b }) => ({
        role,
        x: Math.round(b.x * width),
        y: Math.round(b.y * height),
        width: Math.round(b.width * width),
        height: Math.round(b.height * height),
      })),
  }
}

/** The regions that a highlight's first passage uses, and its recording's picture. */
export const setupOf = (page, id) =>
  inDatabase(
    page,
    async (db, done, id) => {
      const get = (table, key) => done(db.transaction(table).objectStore(table).get(key))
      const [passage] = (await get('highlights', id)).passages
      const [{ regions, basedOn }, { video }] = [
        await get('setups', passage.setupId),
        await get('recordings', passage.recordingId),
      ]
      return { regions, basedOn, video, kept: basedOn && (await get('setups', basedOn)).name }
    },
    id,
  )

/** When scenes change in what the highlight on the Bench plays, seconds, as it says once it has been looked along. */
export async function sceneChangesSeen(page) {
  const bar = page.getByRole('group', { name: 'Scenes and shots' })
  if ((await bar.count()) === 0) await page.getByRole('button', { name: 'Scenes', exact: true }).click()
  await page.locator('[data-scene-changes]').waitFor({ timeout: 300_000 })
  const seen = await bar.getAttribute('data-scene-changes')
  return seen === '' ? [] : seen.split(' ').map(Number)
}

/** How many changes were seen within two frames, and how many that there are none of; `frame`: its length, seconds. */
export function judgeChanges(changes, seen, frame) {
  const isAt = (a, b) => Math.abs(a - b) <= 2 * frame + 0.001
  return {
    changes: changes.length,
    changesFound: changes.filter((c) => seen.some((s) => isAt(c, s))).length,
    changesInvented: seen.filter((s) => !changes.some((c) => isAt(c, s))).length,
  }
}

export function filesIn(folder) {
  return readdirSync(folder)
    .filter((f) => VIDEOS.has(extname(f)))
    .sort()
    .map((f) => {
      const beside = join(folder, `${basename(f, extname(f))}.json`)
      return {
        file: join(folder, f),
        truth: existsSync(beside) ? truthFile.parse(JSON.parse(readFileSync(beside))) : null,
      }
    })
}

/** Looks at every file of a folder; with the truth beside them, says how much of it is found. */
export async function foundInFiles(page, folder, log) {
  await withPlainChooser(page)
  const sums = {}
  let judged = 0
  for (const { file, truth } of filesIn(folder)) {
    const { size, frame, found } = await proposalsFor(page, file)
    const verdict = truth && {
      ...judgeRegions(truth, found, size),
      ...(truth.sceneChanges && judgeChanges(truth.sceneChanges, await sceneChangesSeen(page), frame)),
    }
    if (log || !truth) process.stderr.write(`${basename(file)}: ${JSON.stringify({ found, ...verdict })}\n`)
    if (!verdict) continue
    judged++
    for (const [key, value] of Object.entries(verdict)) sums[key] = (sums[key] ?? 0) + value
  }
  if (judged === 0) return []
  const share = (part, of, unit, bar) => ({
    figure: of === 0 ? 1 : part / of,
    unit: `of ${of} ${unit}`,
    bar,
    met: of === 0 || part / of >= bar,
  })
  return [
    share(sums.facesPlaced, sums.faces, 'faces within 8 px or 2 %', 0.95),
    share(sums.rolesRight, sums.matched, 'roles right', 0.9),
    { figure: sums.noFaces, unit: 'called a face that show none', bar: 0, met: sums.noFaces === 0 },
    share(sums.listsFound, sums.lists, 'lists, chats and displays found', 0.8),
    ...(sums.changes === undefined ? [] : changeFigures(sums)),
  ]
}

/** What was added up of {@link judgeChanges}. */
export const changeFigures = ({ changes, changesFound, changesInvented }) => [
  {
    figure: changes === 0 ? 1 : changesFound / changes,
    unit: `of ${changes} scene changes within two frames`,
    bar: 0.95,
    met: changesFound >= 0.95 * changes,
  },
  { figure: changesInvented, unit: 'scene changes where there are none', bar: 0, met: changesInvented === 0 },
]
