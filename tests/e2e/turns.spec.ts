import { expect, test } from '@playwright/test'
import { readFileSync } from 'node:fs'
import type { Highlight } from '@/core/model/highlight'
import type { Layout } from '@/core/model/layout'
import { toDemoBench, watchForErrors } from '../support/brimble'
import { inDatabase } from '../support/inDatabase.mjs'

/** Who says what when, as the demo’s script has it. */
const SCRIPT = [
  ...readFileSync('public/demo/open-day-call.vtt', 'utf8').matchAll(/(\d\d):(\S+) --> \d\d:\d\d:(\S+)\n<v (\w+)>/g),
].map(([, , from = '', to = '', name = '']) => ({ from: seconds(from), to: seconds(to), name }))

function seconds(text: string): number {
  return text.split(':').reduce((sum, part) => sum * 60 + Number(part), 0)
}

test('whoever speaks in a call is large, in turns that are long enough, in one step of undo', async ({ page }) => {
  test.setTimeout(180_000)
  const errors = watchForErrors(page)
  await toDemoBench(page)
  await page.getByRole('link', { name: 'Shelf' }).click()
  await page.getByRole('button', { name: 'Cut a highlight from Open day call' }).click()
  await expect(page.getByRole('img', { name: 'Result, tall' })).toBeVisible()
  // Where the heads are is known once it has been looked along.
  await expect(page.getByText(/of the time the face is inside/).first()).toBeVisible({ timeout: 90_000 })
  await page.getByRole('button', { name: 'Scenes', exact: true }).click()
  await page.getByRole('button', { name: 'Follow who speaks' }).click()
  await expect(page.getByText(/^Cut into \d turns\.$/)).toBeVisible({ timeout: 60_000 })
  const id = new URL(page.url()).pathname.split('/').at(-1) ?? ''
  const kept = () =>
    inDatabase(
      page,
      async (db, done, id) => {
        const tables = db.transaction(['highlights', 'layouts'])
        const highlight = await done<Highlight>(tables.objectStore('highlights').get(id))
        return { highlight, layouts: await done<Layout[]>(tables.objectStore('layouts').getAll()) }
      },
      id,
    )
  await expect.poll(async () => (await kept()).highlight.passages.length).toBeGreaterThan(3)
  const { highlight, layouts } = await kept()
  const turns = highlight.passages.map((p) => ({
    from: p.inMicros / 1e6,
    to: p.outMicros / 1e6,
    name:
      layouts
        .find((l) => l.id === p.layoutId)
        ?.name.split(', ')
        .at(-1) ?? '',
  }))
  for (const { from, to } of turns) expect(to - from).toBeGreaterThanOrEqual(2)
  const right = SCRIPT.map(({ from, to, name }) =>
    turns
      .filter((t) => t.name === name)
      .reduce((sum, t) => sum + Math.max(0, Math.min(to, t.to) - Math.max(from, t.from)), 0),
  ).reduce((a, b) => a + b, 0)
  const said = SCRIPT.reduce((sum, { from, to }) => sum + to - from, 0)
  expect(right / said).toBeGreaterThan(0.85)
  // No word is cut into.
  for (const { to } of turns.slice(0, -1)) expect(SCRIPT.filter((s) => to > s.from && to < s.to)).toEqual([])
  await page.getByRole('button', { name: 'Undo', exact: true }).last().click()
  await expect.poll(async () => (await kept()).highlight.passages.length).toBe(1)
  errors.expectNone()
})
