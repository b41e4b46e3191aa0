// A region dragged about for four seconds in the Frame with three shapes on screen: how often the page draws meanwhile.
import { aloneAndBeside, openThreeShapes } from './livePicture.mjs'

const SECONDS = 4

export async function dragRegion({ page, memory }) {
  await openThreeShapes(page, memory)
  return aloneAndBeside(
    'drag-region',
    () => dragAbout(page),
    (f) =>
      `${f.framesPerSecond.toFixed(0)} frames a second on the page, Frame and ${f.shapes} shapes drawn anew ${f.picturesPerSecond.toFixed(1)} times a second; longest task ${Math.round(f.longestTaskMs)} ms`,
    memory,
  )
}

async function dragAbout(page) {
  const box = await page.getByRole('group', { name: /^Face: / }).boundingBox()
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
  await page.mouse.down()
  await page.evaluate(() => {
    Object.assign(window, { ticks: 0, longest: 0, pictures: 0 })
    if (window.isWatched) return
    window.isWatched = true
    const tick = () => {
      window.ticks++
      requestAnimationFrame(tick)
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
    return { frames: window.ticks, pictures: window.pictures, longest: window.longest }
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
