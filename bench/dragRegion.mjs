// A region dragged about for four seconds in the Frame with three shapes on screen: how often the page draws meanwhile.
import { join } from 'node:path'
import { root } from '../scripts/commands.mjs'
import { addToShelf } from '../scripts/headless.mjs'
import { besideABusyCore, yardstick } from './measure.mjs'

const SECONDS = 4

/**
 * Counts, in `window.pictures`, how often the Frame and all shapes are drawn on pages opened from now on; `askedAt`
 * is when a key was pressed last, `answeredAt` when a picture of another moment than before it was drawn first after
 * it, both ms.
 */
export async function countPictures(page) {
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

export async function dragRegion({ page, memory }) {
  await countPictures(page)
  await addToShelf(page, join(root, 'public/demo/ridge-cup-stream.mp4'))
  await page.getByRole('button', { name: /^Cut a highlight from ridge-cup/ }).click()
  await page.getByRole('img', { name: 'Result, tall' }).waitFor()
  for (const shape of ['portrait', 'square']) await page.getByRole('button', { name: shape, exact: true }).click()
  // Touched once, the region is no guess any more; then until the highlight has been looked along: nothing else is
  // going on.
  await page.getByRole('group', { name: /^Face: / }).press('ArrowLeft')
  await page.getByRole('note', { name: 'Presence in Face' }).waitFor({ timeout: 120_000 })
  await page.waitForTimeout(2000)
  await memory.peak()
  const rows = []
  for (const beside of [false, true]) {
    const measured = () => dragAbout(page)
    const { seconds, ...figures } = await (beside ? besideABusyCore(measured) : measured())
    const name = beside ? 'drag-region, one core busy' : 'drag-region'
    process.stdout.write(
      `  ${name}: ${figures.framesPerSecond.toFixed(0)} frames a second on the page, Frame and ${figures.shapes} shapes drawn anew ${figures.picturesPerSecond.toFixed(1)} times a second; longest task ${Math.round(figures.longestTaskMs)} ms; yardstick ${yardstick().toFixed(1)} s\n`,
    )
    rows.push({ name, seconds, referenceSeconds: seconds, ...figures, ...(await memory.peak()) })
  }
  return rows
}

async function dragAbout(page) {
  const box = await page.getByRole('group', { name: /^Face: / }).boundingBox()
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
  await page.mouse.down()
  await page.evaluate(() => {
    window.ticks = []
    window.longest = 0
    window.pictures = 0
    const tick = (t) => {
      window.ticks.push(t)
      if (window.ticks) requestAnimationFrame(tick)
    }
    requestAnimationFrame(tick)
    new PerformanceObserver((list) =>
      list.getEntries().forEach((e) => (window.longest = Math.max(window.longest, e.duration))),
    ).observe({ type: 'longtask' })
  })
  const shapes = await page.evaluate(() => document.querySelectorAll('[data-testid^="shape-"] canvas').length)
  // As a mouse does it: sixty times a second, whether or not the page has caught up.
  const pointer = await page.context().newCDPSession(page)
  const started = performance.now()
  for (let n = 0; performance.now() - started < SECONDS * 1000; n++) {
    void pointer.send('Input.dispatchMouseEvent', {
      type: 'mouseMoved',
      x: box.x + box.width / 2 - 120 * Math.sin(n / 20),
      y: box.y + box.height / 2 - 60 * (1 - Math.cos(n / 25)),
      button: 'left',
      buttons: 1,
    })
    await new Promise((resolve) => setTimeout(resolve, 1000 / 60))
  }
  const seconds = (performance.now() - started) / 1000
  const { frames, pictures, longest } = await page.evaluate(() => {
    return { frames: window.ticks.length, pictures: window.pictures, longest: window.longest }
  })
  await page.mouse.up()
  await page.waitForTimeout(1000)
  return {
    seconds,
    shapes,
    framesPerSecond: frames / seconds,
    picturesPerSecond: pictures / seconds,
    longestTaskMs: longest,
  }
}
