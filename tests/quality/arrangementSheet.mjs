// `npm run score -- arrangements --sheet DIR`: what the layout that is offered first makes of scenes, one picture for
// each family, drawn with the demo's people and games. For a designer to look at.
import { execFileSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium } from '@playwright/test'
import { NO_GPU_ARGS } from '../../scripts/chromium.mjs'
import { root } from '../../scripts/commands.mjs'

/** Px of a shape's height on a sheet. */
const HEIGHT = 400
/** Scenes of a family that are drawn, spread over all it has. */
const MAX_SCENES = 6

/** Moments of the demo, and where things are in them, px. */
const SOURCES = {
  stream: ['ridge-cup-stream.mp4', 12],
  webinar: ['reading-thermals-webinar.mp4', 18],
  call: ['open-day-call.mp4', 20],
}
const PEOPLE = [
  { from: 'call', tile: [0, 180, 638, 360], head: [248, 258, 162, 194], wall: '#b7ae9c' },
  { from: 'webinar', tile: [984, 450, 264, 198], head: [1071, 495, 92, 108], wall: '#bdb9ab' },
  { from: 'call', tile: [642, 180, 638, 360], head: [882, 262, 162, 196], wall: '#9fb3ac' },
]
const THINGS = {
  game: { from: 'stream', tile: [380, 120, 1000, 850] },
  slides: { from: 'webinar', tile: [32, 72, 928, 522] },
  hud: { from: 'stream', tile: [1440, 36, 440, 168] },
  chat: { from: 'stream', tile: [1440, 36, 440, 168] },
  whole: { from: 'stream', tile: [360, 210, 1040, 585] },
}

function momentsOfDemo() {
  const folder = mkdtempSync(join(tmpdir(), 'brimble-sheet-'))
  try {
    return Object.fromEntries(
      Object.entries(SOURCES).map(([name, [file, seconds]]) => {
        const picture = join(folder, `${name}.png`)
        const from = ['-ss', String(seconds), '-i', join(root, 'public', 'demo', file)]
        execFileSync('ffmpeg', ['-v', 'error', '-y', ...from, '-frames:v', '1', picture])
        return [name, `data:image/png;base64,${readFileSync(picture).toString('base64')}`]
      }),
    )
  } finally {
    rmSync(folder, { recursive: true, force: true })
  }
}

/** Runs in a page: draws rows of a source picture and what became of it, and gives a PNG. */
async function drawSheet({ rows, sources, people, things, height }) {
  const images = Object.fromEntries(
    await Promise.all(
      Object.entries(sources).map(async ([name, url]) => {
        const image = new Image()
        image.src = url
        await image.decode()
        return [name, image]
      }),
    ),
  )
  const drawScene = ({ frame, regions }) => {
    const canvas = Object.assign(document.createElement('canvas'), frame)
    const g = canvas.getContext('2d')
    g.drawImage(images.stream, ...things.whole.tile, 0, 0, frame.width, frame.height)
    if (regions.some((r) => r.role === 'slides' || r.role === 'speaker')) {
      g.fillStyle = '#262e2b'
      g.fillRect(0, 0, frame.width, frame.height)
    }
    let nth = 0
    for (const { role, bounds: b, faces: [face] = [] } of regions) {
      g.save()
      g.beginPath()
      g.rect(b.x, b.y, b.width, b.height)
      g.clip()
      if (face) {
        const { from, tile, head, wall } = people[nth++ % people.length]
        const s = face.height / head[3]
        g.fillStyle = wall
        g.fillRect(b.x, b.y, b.width, b.height)
        const [x, y] = [
          face.x + face.width / 2 - s * (head[0] + head[2] / 2 - tile[0]),
          face.y - s * (head[1] - tile[1]),
        ]
        g.drawImage(images[from], ...tile, x, y, s * tile[2], s * tile[3])
      } else if (things[role]) {
        const { from, tile } = things[role]
        g.drawImage(images[from], ...tile, b.x, b.y, b.width, b.height)
      }
      g.restore()
    }
    return canvas
  }
  const drawSteps = (g, { size, steps, texts }, scene) => {
    for (const step of steps) {
      g.save()
      if (step.kind === 'picture' || step.kind === 'blur') {
        const { crop, dest } = step
        const to = dest ?? { x: 0, y: 0, ...size }
        if (step.kind === 'blur') g.filter = 'blur(24px)'
        g.beginPath()
        if (step.outline)
          g.roundRect(to.x, to.y, to.width, to.height, [{ x: step.outline.radiusX, y: step.outline.radiusY }])
        else g.rect(to.x, to.y, to.width, to.height)
        g.clip()
        const turn = step.orientation?.turn ?? 0
        g.translate(to.x + to.width / 2, to.y + to.height / 2)
        g.rotate((turn * Math.PI) / 2)
        if (step.orientation?.flip) g.scale(-1, 1)
        const [w, h] = turn % 2 === 1 ? [to.height, to.width] : [to.width, to.height]
        g.drawImage(scene, crop.x, crop.y, crop.width, crop.height, -w / 2, -h / 2, w, h)
      } else if (step.kind === 'colour') {
        g.fillStyle = step.colour
        g.fillRect(0, 0, size.width, size.height)
      } else if (step.kind === 'gradient') {
        g.fillStyle = step.from
        g.fillRect(0, 0, size.width, size.height)
      } else if (step.kind === 'tint') {
        g.globalAlpha = step.opacity
        g.fillStyle = step.colour
        g.fillRect(0, 0, size.width, size.height)
      } else if (step.kind === 'level') {
        g.fillStyle = '#e0a83a'
        const { x, y, width, height: h } = step.rect
        for (let i = 0; i < 24; i++)
          g.fillRect(
            x + (i / 24) * width,
            y + h * 0.5 * (1 - Math.abs(Math.sin(i * 1.7))),
            width / 40,
            h * Math.abs(Math.sin(i * 1.7)),
          )
      }
      g.restore()
    }
    for (const { blocks, block, colour, outline, face, lines } of texts) {
      if (block) {
        g.fillStyle = block
        for (const b of blocks) g.fillRect(b.x, b.y, b.width, b.height)
      }
      g.font = `${face.weight} ${face.size}px sans-serif`
      g.fillStyle = colour
      g.strokeStyle = outline ?? 'rgba(16,20,16,0.8)'
      g.lineWidth = face.size * 0.12
      for (const { text, x, baseline, width } of lines) {
        g.strokeText(text, x, baseline, width)
        g.fillText(text, x, baseline, width)
      }
    }
  }
  const gap = 24
  const sheets = rows.map(({ scene, results }) => {
    const source = drawScene(scene)
    return { name: scene.name, source, results }
  })
  const widthOf = ({ width, height: h }) => (width / h) * height
  const rowWidth = ({ source, results }) => widthOf(source) + results.reduce((sum, r) => sum + gap + widthOf(r.size), 0)
  const canvas = document.createElement('canvas')
  canvas.width = Math.ceil(Math.max(...sheets.map(rowWidth)) + 2 * gap)
  canvas.height = sheets.length * (height + 48) + gap
  const g = canvas.getContext('2d')
  g.fillStyle = '#4a504c'
  g.fillRect(0, 0, canvas.width, canvas.height)
  sheets.forEach(({ name, source, results }, n) => {
    const y = n * (height + 48) + 36
    g.fillStyle = '#fff'
    g.font = '20px sans-serif'
    g.fillText(`${name}: ${results[0]?.layout ?? ''}`, gap, y - 10)
    g.drawImage(source, gap, y, widthOf(source), height)
    let x = 2 * gap + widthOf(source)
    for (const result of results) {
      const part = Object.assign(document.createElement('canvas'), result.size)
      drawSteps(part.getContext('2d'), result, source)
      g.drawImage(part, x, y, widthOf(result.size), height)
      x += gap + widthOf(result.size)
    }
  })
  return canvas.toDataURL('image/png')
}

/** `pick`: every so many scenes of a family. `compositionsOf` gives what is drawn of a scene: `{ layout, size, steps, texts }`. */
export async function drawSheets(folder, families, compositionsOf) {
  mkdirSync(folder, { recursive: true })
  const sources = momentsOfDemo()
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: NO_GPU_ARGS })
  try {
    const page = await browser.newPage()
    const made = []
    for (const [family, scenes] of families) {
      const every = Math.max(1, Math.ceil(scenes.length / MAX_SCENES))
      const rows = []
      for (const scene of scenes.filter((_, i) => i % every === 0))
        rows.push({ scene, results: await compositionsOf(scene) })
      const png = await page.evaluate(drawSheet, { rows, sources, people: PEOPLE, things: THINGS, height: HEIGHT })
      const file = join(folder, `${family.replaceAll(' ', '-')}.png`)
      writeFileSync(file, Buffer.from(png.split(',')[1], 'base64'))
      made.push(file)
    }
    return made
  } finally {
    await browser.close()
  }
}
