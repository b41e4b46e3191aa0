// Footage from outside, by the interface: of each scene the first file's regions are kept as a setup; is the scene
// recognised in its others, and no other scene taken for it?
import { basename } from 'node:path'
import { filesIn, openOnBench, setupOf, withPlainChooser } from './foundInFiles.mjs'

const BAR = 0.95

/** Regions are found, or a setup is recognised, without being asked for. */
const untilLooked = (page) => page.getByRole('button', { name: 'Look again' }).waitFor({ timeout: 180_000 })

async function keepAs(page, name) {
  await untilLooked(page)
  await page.waitForTimeout(1000)
  await page
    .getByRole('button', { name: /^Setup$/ })
    .or(page.locator('button[title^="Setup:"]'))
    .first()
    .click()
  await page.getByRole('menuitem', { name: /^Keep these regions/ }).click()
  await page.getByRole('dialog').getByLabel('Name', { exact: true }).fill(name)
  await page.getByRole('button', { name: 'Keep setup' }).click()
  await page.getByText(`“${name}” is kept`).waitFor()
}

/** What a file is taken for: the name of a kept setup, for sure or not; null for none. */
async function takenFor(page, file) {
  const id = await openOnBench(page, file)
  await untilLooked(page)
  await page.waitForTimeout(1500)
  await page.locator('[data-saving="saved"]').waitFor({ state: 'attached' })
  const { kept } = await setupOf(page, id)
  if (kept) return { name: kept, sure: true }
  const asked = page.getByRole('group', { name: /^Is this “/ })
  if ((await asked.count()) === 0) return null
  return { name: /“(.+)”/.exec((await asked.getAttribute('aria-label')) ?? '')?.[1] ?? '', sure: false }
}

export async function recognisedInFiles(page, folder, log) {
  await withPlainChooser(page)
  const files = filesIn(folder).filter(({ truth }) => truth?.scene)
  const firsts = new Map()
  for (const { file, truth } of files) if (!firsts.has(truth.scene)) firsts.set(truth.scene, file)
  const tally = { of: 0, right: 0, wrong: 0, offered: 0 }
  for (const [scene, file] of firsts) {
    const id = await openOnBench(page, file)
    await untilLooked(page)
    await page.waitForTimeout(1500)
    const { kept } = await setupOf(page, id)
    // A scene that nobody has kept may be taken for none that was.
    if (kept) tally.wrong++
    if (log && kept) process.stderr.write(`${basename(file)}: taken for ${kept}, which it is not\n`)
    await keepAs(page, scene)
  }
  for (const { file, truth } of files) {
    if (firsts.get(truth.scene) === file) continue
    const taken = await takenFor(page, file)
    tally.of++
    if (taken?.sure) tally[taken.name === truth.scene ? 'right' : 'wrong']++
    else if (taken) tally.offered++
    if (log && !(taken?.sure && taken.name === truth.scene))
      process.stderr.write(`${basename(file)}: ${JSON.stringify(taken)}\n`)
  }
  return [
    {
      figure: tally.of === 0 ? 1 : tally.right / tally.of,
      unit: `of ${tally.of} files of ${firsts.size} scenes recognised and applied`,
      bar: BAR,
      met: tally.right >= BAR * tally.of,
      detail: `${tally.offered} offered`,
    },
    {
      figure: tally.wrong,
      unit: `taken for another scene, in ${tally.of * (firsts.size - 1)} pairs`,
      bar: 0,
      met: tally.wrong === 0,
    },
  ]
}
