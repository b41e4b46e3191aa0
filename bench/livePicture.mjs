// What the benchmarks of the living picture share: counting what is drawn, three shapes on the Bench, and measuring
// alone and beside a busy core.
import { join } from 'node:path'
import { root } from '../scripts/commands.mjs'
import { addToShelf } from '../scripts/headless.mjs'
import { besideABusyCore, median, yardstick } from './measure.mjs'

/** Figures are medians of so many rounds. */
const ROUNDS = 5

/**
 * Counts, in `window.pictures`, how often the Frame and all shapes are drawn on pages opened from now on; `askedAt`
 * is when a key was pressed last, `answeredAt` when a picture of another moment than before it was drawn first after
 * it, both ms.
 */
async function countPictures(page) {
  // The worker that draws says so after every picture of the Frame and all shapes; those messages are counted as they
  // arrive.
  await page.addInitScript(() => {
    window.pictures = 0
    window.addEventListener(
      'keydown',
      (event) => Object.assign(window, { askedAt: event.timeStamp, answeredAt: NaN, leftMicros: window.drawnMicros }),
      true,
    )
    const listen = MessagePort.prototype.addEventListener
    MessagePort.prototype.addEventListener = function (type, listener, ...rest) {
      const counted = (event) => {
        const drawn = event.data?.argumentList?.find((a) => a.value?.kind === 'drawn')?.value
        if (drawn) {
          window.pictures++
          window.drawnMicros = drawn.micros
          if (Number.isNaN(window.answeredAt) && drawn.micros !== window.leftMicros)
            window.answeredAt = performance.now()
        }
        listener.call(this, event)
      }
      return listen.call(this, type, type === 'message' ? counted : listener, ...rest)
    }
  })
}

/** Opens the demo stream in three shapes and waits until nothing else is going on. */
export async function openThreeShapes(page, memory) {
  await countPictures(page)
  await addToShelf(page, join(root, 'public/demo/ridge-cup-stream.mp4'))
  await page.getByRole('button', { name: /^Cut a highlight from ridge-cup/ }).click()
  await page.getByRole('img', { name: 'Result, tall' }).waitFor()
  for (const shape of ['portrait', 'square']) await page.getByRole('button', { name: shape, exact: true }).click()
  // Touched once, the region is no guess any more; then until the highlight has been looked along.
  await page.getByRole('group', { name: /^Face: / }).press('ArrowLeft')
  await page.getByRole('note', { name: 'Presence in Face' }).waitFor({ timeout: 120_000 })
  await page.keyboard.press('Escape')
  await page.waitForTimeout(2000)
  await memory.peak()
}

/**
 * Measures alone, then while a loop keeps one core busy: `measure` gives figures by name, of which the medians are
 * told by `words` and become a row each.
 */
export async function aloneAndBeside(name, measure, words, memory) {
  const rows = []
  for (const [rowName, beside] of [
    [name, (work) => work()],
    [`${name}, one core busy`, besideABusyCore],
  ]) {
    const rounds = await beside(async () => {
      const measured = []
      for (let n = 0; n < ROUNDS; n++) measured.push(await measure())
      return measured
    })
    const figures = Object.fromEntries(
      Object.keys(rounds[0]).map((key) => [key, median(rounds.map((round) => round[key]))]),
    )
    process.stdout.write(`  ${rowName}: ${words(figures)}; yardstick ${yardstick().toFixed(1)} s\n`)
    const { seconds } = figures
    rows.push({ name: rowName, referenceSeconds: seconds, ...figures, ...(await memory.peak()) })
  }
  return rows
}
