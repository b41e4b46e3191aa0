// Three shapes of the demo highlight (14 s, 1080p60, at 30 fps): asked for in one go, and one after the other.
const ROUNDS = 3
const median = (of) => [...of].sort((a, b) => a - b)[Math.floor(of.length / 2)]

async function ask(page, bench, left) {
  await page.goto(bench)
  await page.getByRole('button', { name: 'Render', exact: true }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('Frame rate').click()
  await page.getByRole('option', { name: '30 fps', exact: true }).click()
  for (const shape of left) await dialog.getByRole('checkbox', { name: new RegExp(`^${shape} `) }).uncheck()
  await dialog.getByRole('button', { name: /^Render \d files?/ }).click()
}

/** Seconds that the finished files took by what the Outbox says, after which they are removed. */
async function secondsOf(page, files) {
  await page.getByRole('link', { name: 'Outbox' }).click()
  await page.waitForFunction((n) => document.querySelectorAll('article[data-state=finished]').length === n, files, {
    timeout: 600_000,
  })
  let seconds = 0
  for (let n = 0; n < files; n++) {
    const row = page.locator('article[data-state=finished]').first()
    seconds += Number(/frames in ([\d.]+) s/.exec(await row.innerText())?.[1])
    await row.getByRole('button', { name: /^More for/ }).click()
    await page.getByRole('menuitem', { name: 'Move to the bin' }).click()
    await page.waitForFunction(
      (left) => document.querySelectorAll('article[data-state=finished]').length === left,
      files - n - 1,
    )
  }
  return seconds
}

export async function threeShapes({ page, memory }) {
  await page.goto('/')
  await page.getByRole('button', { name: 'Open the demo shelf' }).first().click()
  await page.getByRole('link', { name: /^The radio is calling/ }).waitFor()
  await page.getByRole('link', { name: /^Last gate, no lift/ }).click()
  await page.getByRole('img', { name: 'Result, tall' }).waitFor()
  const bench = page.url()
  const together = []
  const apart = []
  const shapes = ['tall', 'portrait', 'square']
  for (let round = 0; round < ROUNDS; round++) {
    await ask(page, bench, [])
    together.push(await secondsOf(page, 3))
    let sum = 0
    for (const shape of shapes) {
      await ask(
        page,
        bench,
        shapes.filter((s) => s !== shape),
      )
      sum += await secondsOf(page, 1)
    }
    apart.push(sum)
    process.stdout.write(
      `  round ${round + 1}: in one go ${together.at(-1).toFixed(1)} s, one after the other ${sum.toFixed(1)} s\n`,
    )
  }
  return [
    { name: 'three-shapes', seconds: median(together), referenceSeconds: median(apart), ...(await memory.peak()) },
  ]
}
