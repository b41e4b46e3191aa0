import { expect, test, type Page } from '@playwright/test'
import { keepRecipe, keepSetup, takeLayout, toBench, watchForErrors } from '../support/brimble'
import { inDatabase } from '../support/inDatabase.mjs'
import { made, SCENES_CHANGE, SHOTS_CHANGE } from '../support/makeRecordings'

interface PassageSeen {
  from: number
  to: number
  setupId: string
  roles: string[]
  layout: string
  aim: { x: number; y: number } | null
}

const idOf = (page: Page) => new URL(page.url()).pathname.split('/').at(-1) ?? ''

/** The passages of a highlight with what each is given: recording times, seconds. */
const passagesOf = (page: Page, id: string) =>
  inDatabase(
    page,
    async (db, done, id) => {
      const get = (table: string, key: string) => done(db.transaction(table).objectStore(table).get(key))
      const { passages } = await get('highlights', id)
      const seen = []
      for (const { inMicros, outMicros, setupId, layoutId, cropPaths } of passages) {
        const [setup, layout] = [await get('setups', setupId), await get('layouts', layoutId)]
        seen.push({
          from: inMicros / 1e6,
          to: outMicros / 1e6,
          setupId,
          roles: setup.regions.map(({ role }: { role: string }) => role),
          layout: layout.name,
          aim: cropPaths[0]?.keys[0] ?? null,
        })
      }
      return seen
    },
    id,
  ) as Promise<PassageSeen[]>

const bar = (page: Page) => page.getByRole('group', { name: 'Scenes and shots' })

test('scenes that change are cut at the frame, each with its own regions; the same scene again is the same setup', async ({
  page,
}) => {
  test.setTimeout(300_000)
  const errors = watchForErrors(page)
  await toBench(page, made('scenes.mp4'), 'scenes')
  // It is offered by itself.
  await expect(bar(page)).toContainText('2 scene changes', { timeout: 120_000 })
  await bar(page).getByRole('button', { name: 'Cut into scenes' }).click()
  await expect(page.getByText('Cut into 3 scenes.')).toBeVisible({ timeout: 120_000 })
  await expect(bar(page)).toHaveCount(0)
  await page.locator('[data-saving="saved"]').waitFor({ state: 'attached' })
  const id = idOf(page)
  const scenes = await passagesOf(page, id)
  expect(scenes.slice(1).map((p) => p.from)).toEqual(SCENES_CHANGE)
  expect(scenes.slice(0, 2).map((p) => p.to)).toEqual(SCENES_CHANGE)
  const [stream, call, again] = scenes
  expect(stream?.roles).toContain('face')
  expect(call?.roles).toEqual(['speaker', 'speaker'])
  expect(call?.layout).toBe('Two people')
  expect(again?.setupId).toBe(stream?.setupId)
  expect(again?.setupId).not.toBe(call?.setupId)
  await page.getByRole('button', { name: 'Undo', exact: true }).first().click()
  await page.locator('[data-saving="saved"]').waitFor({ state: 'attached' })
  await expect.poll(async () => (await passagesOf(page, id)).length).toBe(1)
  errors.expectNone()
})

test('each scene gets its own kept setup', async ({ page }) => {
  test.setTimeout(300_000)
  await toBench(page, 'public/demo/open-day-call.mp4', 'open-day-call')
  await expect(page.getByText(/^Found and set: /)).toBeVisible({ timeout: 60_000 })
  await keepSetup(page, 'Open day')
  await page.goto('/')
  await toBench(page, made('scenes.mp4'), 'scenes')
  await expect(bar(page)).toContainText('2 scene changes', { timeout: 120_000 })
  await bar(page).getByRole('button', { name: 'Cut into scenes' }).click()
  await expect(page.getByText('Cut into 3 scenes.')).toBeVisible({ timeout: 120_000 })
  await page.locator('[data-saving="saved"]').waitFor({ state: 'attached' })
  const names = await inDatabase(
    page,
    async (db, done, id) => {
      const get = (table: string, key: string) => done(db.transaction(table).objectStore(table).get(key))
      const { passages } = await get('highlights', id)
      const based = []
      for (const { setupId } of passages) {
        const { basedOn } = await get('setups', setupId)
        based.push(basedOn && (await get('setups', basedOn)).name)
      }
      return based
    },
    idOf(page),
  )
  expect(names).toEqual([null, 'Open day', null])
})

test('a recipe that says so has a new highlight cut into its scenes, and laid out, without being asked', async ({
  page,
}) => {
  test.setTimeout(300_000)
  await toBench(page, 'public/demo/open-day-call.mp4', 'open-day-call')
  await expect(page.getByText(/^Found and set: /)).toBeVisible({ timeout: 60_000 })
  await keepSetup(page, 'Open day')
  await takeLayout(page, 'Everyone alike')
  await keepRecipe(page, 'Calls')
  await page.goto('/rack')
  const cuts = page.getByRole('checkbox', { name: 'New highlights are cut into their scenes, too' })
  await cuts.click()
  await expect(cuts).toBeChecked()
  await page.goto('/')
  await toBench(page, made('scenes.mp4'), 'scenes')
  await expect(page.getByText('Cut into 3 scenes.')).toBeVisible({ timeout: 180_000 })
  await page.locator('[data-saving="saved"]').waitFor({ state: 'attached' })
  const scenes = await passagesOf(page, idOf(page))
  expect(scenes.map((p) => p.from)).toEqual([0, ...SCENES_CHANGE])
  expect(scenes[1]?.layout).toBe('Everyone alike')
  expect(scenes[0]?.layout).not.toBe('Everyone alike')
})

test('an edited recording is cut into its shots, each framed by itself and moved straight by hand', async ({
  page,
}) => {
  test.setTimeout(300_000)
  const errors = watchForErrors(page)
  await toBench(page, made('edited.mp4'), 'edited')
  await page.getByRole('button', { name: 'Scenes', exact: true }).click()
  await expect(bar(page)).toContainText('5 cuts', { timeout: 120_000 })
  await bar(page).getByRole('button', { name: 'Cut into shots' }).click()
  await expect(page.getByText('Cut into 6 shots.')).toBeVisible({ timeout: 120_000 })
  await page.locator('[data-saving="saved"]').waitFor({ state: 'attached' })
  const id = idOf(page)
  const shots = await passagesOf(page, id)
  expect(shots.slice(1).map((p) => p.from)).toEqual(SHOTS_CHANGE)
  expect(new Set(shots.map((p) => p.layout))).toEqual(new Set(['Game alone']))
  // Where the glider flies, from the script of the demo's pictures.
  expect(shots[0]?.aim?.x).toBeLessThan(0.35)
  expect(shots[2]?.aim?.x).toBeGreaterThan(0.65)

  const panel = page.getByTestId('shape-tall').getByRole('group').first()
  const box = await panel.boundingBox()
  if (!box) throw new Error('no panel')
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2]
  await page.keyboard.down('Shift')
  await page.mouse.move(x, y)
  await page.mouse.down()
  await page.mouse.move(x - 30, y + 12, { steps: 5 })
  await page.mouse.up()
  await page.keyboard.up('Shift')
  await page.locator('[data-saving="saved"]').waitFor({ state: 'attached' })
  const moved = await inDatabase(
    page,
    async (db, done, id) => {
      const { passages } = await done(db.transaction('highlights').objectStore('highlights').get(id))
      return passages.map(({ corrections }: { corrections: { dx: number; dy: number }[] }) => corrections)
    },
    id,
  )
  expect(moved.map((c: unknown[]) => c.length)).toEqual([1, 0, 0, 0, 0, 0])
  expect(moved[0][0].dy).toBe(0)
  expect(moved[0][0].dx).toBeGreaterThan(0.01)
  errors.expectNone()
})

test('a highlight is made of each shot, and this one stays as it is', async ({ page }) => {
  test.setTimeout(300_000)
  await toBench(page, made('edited.mp4'), 'edited')
  await page.getByRole('button', { name: 'Scenes', exact: true }).click()
  await bar(page).getByRole('button', { name: 'A highlight for each shot' }).click({ timeout: 120_000 })
  await expect(page.getByText('6 highlights are on the Shelf.')).toBeVisible({ timeout: 120_000 })
  expect(await passagesOf(page, idOf(page))).toHaveLength(1)
  await page.getByRole('link', { name: 'Shelf' }).click()
  await page
    .getByRole('link', { name: /shot 4/ })
    .first()
    .click()
  await expect(page.getByRole('img', { name: 'Result, tall' })).toBeVisible()
  const [only, ...others] = await passagesOf(page, idOf(page))
  expect(others).toEqual([])
  expect([only?.from, only?.to]).toEqual([7, 8.6])
})
