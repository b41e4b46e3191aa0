import { expect, type Locator, type Page } from '@playwright/test'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { inDatabase } from './inDatabase.mjs'

/** Lets pages that are opened from now on use the plain file dialog: the picker of handles needs a person. */
export async function choosePlainly(page: Page): Promise<void> {
  await page.addInitScript(() => {
    for (const dialog of ['showOpenFilePicker', 'showDirectoryPicker']) Reflect.deleteProperty(window, dialog)
  })
}

/** Adds files through the file dialog of the Shelf. */
export async function addFiles(page: Page, ...files: string[]): Promise<void> {
  await choosePlainly(page)
  if (!page.url().startsWith('http')) await page.goto('/')
  const chooser = page.waitForEvent('filechooser')
  await page.getByRole('button', { name: 'Add recordings' }).first().click()
  await (await chooser).setFiles(files)
}

/** Adds a recording and cuts a highlight from it; ends on the Bench with the first frame drawn. */
export async function toBench(page: Page, file: string, name: string): Promise<void> {
  await addFiles(page, file)
  await page.getByRole('button', { name: `Cut a highlight from ${name}` }).click()
  await expect(page.getByRole('img', { name: 'Result, tall' })).toBeVisible()
}

/** Types a region's pixels into its line. */
export async function setRegion(
  page: Page,
  name: string,
  { x, y, width, height }: { x: number; y: number; width: number; height: number },
): Promise<void> {
  const values = { left: x, top: y, width, height }
  for (const round of [1, 2])
    for (const [key, value] of Object.entries(values)) {
      const field = page.getByLabel(`${name} ${key}`, { exact: true })
      await field.fill(String(value))
      await field.press('Enter')
      if (round === 2) await expect(field).toHaveValue(String(value))
    }
}

/** Types one of a passage's numbers into its ticket. */
export async function setNumber(page: Page, passage: number, label: string, value: string): Promise<void> {
  await page.getByRole('button', { name: `Settings of passage ${passage}` }).click()
  const field = page.getByRole('textbox', { name: label, exact: true })
  await field.fill(value)
  await field.press('Enter')
  await expect(field).toHaveValue(value)
  await page.keyboard.press('Escape')
  await expect(field).toHaveCount(0)
}

/** Lays the passage that is worked on out by a layout of this name; every one that shares its layout too. */
export async function takeLayout(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name: /^Layout: / }).click()
  await page.getByRole('dialog', { name: 'Layouts' }).getByRole('button', { name, exact: true }).first().click()
  await expect(page.getByRole('button', { name: `Layout: ${name}` })).toBeVisible()
}

/** Keeps the regions of the highlight on the Bench as a setup. */
export async function keepSetup(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name: 'Setup', exact: true }).click()
  await page.getByRole('menuitem', { name: /^Keep these regions/ }).click()
  await page.getByLabel('Name', { exact: true }).fill(name)
  await page.getByRole('button', { name: 'Keep setup' }).click()
  await expect(page.getByRole('button', { name })).toBeVisible({ timeout: 60_000 })
}

/** Keeps how the highlight on the Bench is laid out as a recipe; used by itself, unless it is not to be. */
export async function keepRecipe(page: Page, name: string, byItself = true): Promise<void> {
  await page.getByRole('button', { name: /^Layout: / }).click()
  await page.getByRole('button', { name: 'Keep as a recipe…' }).click()
  await page.getByLabel('Name', { exact: true }).fill(name)
  if (!byItself) await page.getByRole('checkbox', { name: /^By itself/ }).uncheck()
  await page.getByRole('button', { name: 'Keep recipe' }).click()
  await expect(page.getByText(`“${name}” is kept.`)).toBeVisible()
}

/** Moves a cut point by whole seconds with the keyboard. */
export async function moveCut(page: Page, which: 'In point' | 'Out point', seconds: number): Promise<void> {
  const handle = page.getByRole('slider', { name: which })
  await handle.focus()
  for (let i = 0; i < Math.abs(seconds); i++) await handle.press(seconds > 0 ? 'Shift+ArrowDown' : 'Shift+ArrowUp')
}

/** The size of files whose pictures are not looked at closely: half as much work as the shape's own. */
export const SMALL = 'At most 720 across'

/**
 * Opens the render dialog, chooses, renders, waits in the Outbox, and saves the file; returns its path and the
 * Outbox's row.
 */
export async function renderAndSave(
  page: Page,
  options: { rate?: string; coding?: string; size?: typeof SMALL } = {},
): Promise<{ path: string; fileName: string; row: Locator }> {
  await page.getByRole('button', { name: 'Render', exact: true }).click()
  const dialog = page.getByRole('dialog')
  for (const [label, name] of [
    ['Size', options.size],
    ['Frame rate', options.rate],
    ['Codec', options.coding],
  ] as const) {
    if (!name) continue
    await dialog.getByLabel(label, { exact: true }).click()
    await page.getByRole('option', { name, exact: true }).click()
  }
  await dialog.getByRole('button', { name: /^Render \d+ file/ }).click()
  await page.getByRole('link', { name: 'Outbox' }).click()
  const row = page.locator('article[data-state]').first()
  await expect(row).toHaveAttribute('data-state', /finished|failed/, { timeout: 110_000 })
  await expect(row, await row.innerText()).toHaveAttribute('data-state', 'finished')
  const download = page.waitForEvent('download')
  await row.getByRole('button', { name: 'Save' }).click()
  const saved = await download
  const path = join(mkdtempSync(join(tmpdir(), 'brimble-out-')), saved.suggestedFilename())
  await saved.saveAs(path)
  return { path, fileName: saved.suggestedFilename(), row }
}

/**
 * Fails the test at its end if the page wrote an error to the console, threw, or asked for anything outside itself;
 * `butFor` leaves out what the test provokes.
 */
export function watchForErrors(page: Page): { expectNone: (butFor?: RegExp) => void } {
  const problems: string[] = []
  page.on('console', (message) => {
    if (message.type() === 'error' || message.type() === 'warning') problems.push(`console: ${message.text()}`)
  })
  page.on('pageerror', (error) => problems.push(`thrown: ${error.message}`))
  page.on('request', (request) => {
    if (!/^(http:\/\/localhost|blob:|data:)/.test(request.url())) problems.push(`request: ${request.url()}`)
  })
  return { expectNone: (butFor) => expect(problems.filter((p) => !butFor?.test(p))).toEqual([]) }
}

/** Opens the demo shelf and the Bench of its first highlight, with the first frame drawn. */
export async function toDemoBench(page: Page): Promise<void> {
  await choosePlainly(page)
  await page.goto('/')
  await page.getByRole('button', { name: 'Open the demo shelf' }).first().click()
  await page.getByRole('link', { name: /^Last gate, no lift/ }).click()
  await expect(page.getByRole('img', { name: 'Result, tall' })).toBeVisible()
}

/**
 * Stores copies of a stored highlight with some of its fields changed, as another tab would: many are quicker made so
 * than by hand. The setups and layouts stay its own.
 */
export async function storeCopies(
  page: Page,
  id: string,
  changes: readonly ({ id: string } & Record<string, unknown>)[],
): Promise<void> {
  await inDatabase(
    page,
    async (db, done, { id, changes }) => {
      const highlights = db.transaction('highlights', 'readwrite').objectStore('highlights')
      const highlight = (await done(highlights.get(id))) as Record<string, unknown>
      for (const change of changes) await done(highlights.put({ ...highlight, ...change }))
    },
    { id, changes },
  )
}

/** The stored record of a highlight. */
export async function storedHighlight<T>(page: Page, id: string): Promise<T> {
  return inDatabase(
    page,
    async (db, done, id) => (await done(db.transaction('highlights').objectStore('highlights').get(id))) as T,
    id,
  )
}

/** A picture of a preview that has been at rest for so long is that of the place itself, not one on the way there. */
const LOOKS_AT_REST = 5
const LOOKS_EVERY_MS = 300

/** A picture of a preview once it no longer changes. */
export async function steadyPicture(shown: Locator): Promise<Buffer> {
  let picture = await shown.screenshot()
  let alike = 0
  const looksAlike = async () => {
    const before = picture
    picture = await shown.screenshot()
    alike = picture.equals(before) ? alike + 1 : 0
    return alike
  }
  await expect
    .poll(looksAlike, { message: 'the preview comes to rest', intervals: [LOOKS_EVERY_MS], timeout: 40_000 })
    .toBe(LOOKS_AT_REST)
  return picture
}

/** Waits until the highlight has been looked along, after which arrangements know where heads are. */
export async function untilLookedAlong(page: Page): Promise<void> {
  const looking = page.getByText(/^checking regions/)
  await expect(looking.first()).toBeVisible({ timeout: 60_000 })
  await expect(looking).toHaveCount(0, { timeout: 180_000 })
}

/** Has the layout in use carried over by rule, whatever the regions show. */
export async function keepToRule(page: Page): Promise<void> {
  await page.getByRole('button', { name: /^Layout: / }).click()
  const adapts = page.getByRole('checkbox', { name: 'Adapt each shape to faces and text' })
  await adapts.click()
  await expect(adapts).not.toBeChecked()
  await page.keyboard.press('Escape')
}

/** Resolves when all that was done on the Bench, or to a recording's moments, is written down. */
export async function untilKept(page: Page): Promise<void> {
  await expect(page.locator('[data-saving]')).toHaveAttribute('data-saving', 'saved')
}

/** Takes up what has the focus, carries it a step by an arrow key, and puts it down. */
export async function carry(page: Page, arrow: 'ArrowRight' | 'ArrowDown'): Promise<void> {
  const said = page.locator('[id^=DndLiveRegion]')
  await page.keyboard.press('Space')
  await expect(said).toContainText('moved over')
  const before = await said.innerText()
  await page.keyboard.press(arrow)
  await expect(said).not.toHaveText(before)
  await page.keyboard.press('Space')
}

/** Resolves when something no longer moves, nor changes its size. */
export async function untilSteady(shown: Locator): Promise<void> {
  let box = await shown.boundingBox()
  const isSteady = async () => {
    const before = box
    box = await shown.boundingBox()
    return JSON.stringify(box) === JSON.stringify(before)
  }
  await expect.poll(isSteady, { intervals: [100] }).toBe(true)
}
