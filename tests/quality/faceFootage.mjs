// Footage of unlike makes with people in it, drawn on a canvas by code that shares nothing with the demo's: it is
// known what is where. Each is a file with the truth beside it, as `found-regions --files` takes them.
import { spawn } from 'node:child_process'
import { mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

const RATE = 4
const SECONDS = 8

/** Every make: what lies where in px of 1920 x 1080, and how it is coded. `camera`: rect, border, tilt, cut-out. */
export const MAKES = [
  {
    name: 'busy game, glowing border, list and chat',
    game: 'busy',
    camera: { x: 0, y: 756, width: 420, height: 324, border: 'glow' },
    list: { x: 1500, y: 60, width: 380, height: 220 },
    chat: { x: 1480, y: 420, width: 400, height: 520 },
  },
  { name: 'calm game, camera without a border', game: 'calm', camera: { x: 1480, y: 40, width: 400, height: 300 } },
  { name: 'night game, small camera', game: 'night', camera: { x: 40, y: 40, width: 272, height: 204, border: 4 } },
  { name: 'letterboxed', game: 'letterbox', camera: { x: 1400, y: 700, width: 440, height: 248, border: 3 } },
  { name: 'virtual background', game: 'busy', camera: { x: 1420, y: 760, width: 460, height: 280, virtual: true } },
  { name: 'tilted camera', game: 'calm', camera: { x: 1380, y: 720, width: 440, height: 300, border: 6, tilt: 0.03 } },
  {
    name: '720p at a low bitrate',
    game: 'busy',
    camera: { x: 60, y: 720, width: 480, height: 300 },
    height: 720,
    crf: 36,
  },
  { name: 'dials and round things, nobody', game: 'dials' },
  {
    name: 'two cameras over a game',
    game: 'busy',
    cameras: [
      [40, 40],
      [1440, 40],
    ].map(([x, y]) => ({ x, y, width: 440, height: 260 })),
  },
  {
    name: 'call of three, one camera off',
    game: 'plain',
    tiles: [
      [10, 90],
      [970, 90],
      [490, 600],
    ].map(([x, y], n) => ({ x, y, width: 940, height: n === 2 ? 470 : 500 })),
    off: [1],
  },
  { name: 'camera full', game: 'plain', full: true },
  {
    name: 'slides on a plain ground, camera in a corner',
    game: 'slides',
    slides: { x: 0, y: 0, width: 1920, height: 1080 },
    camera: { x: 1460, y: 780, width: 420, height: 260 },
  },
]

/** Draws one frame; runs in the page. */
function drawFrame({ make, seed, n, width, height }) {
  const canvas = (window.made ??= new OffscreenCanvas(1, 1))
  if (canvas.width !== width || canvas.height !== height) Object.assign(canvas, { width, height })
  const c = canvas.getContext('2d')
  const noise = (k, from = seed) => {
    const v = Math.sin(k * 127.1 + from * 311.7) * 43758.5453
    return v - Math.floor(v)
  }
  // The room and who sits in it belong to the scene, where there is one; clothes and light to the day.
  const room = make.room ?? seed
  c.setTransform(width / 1920, 0, 0, height / 1080, 0, 0)
  const t = n / 4
  const hsl = (h, s, l) => `hsl(${h} ${s}% ${l}%)`
  const grounds = {
    busy(rests = 0) {
      c.fillStyle = hsl(200 + seed * 40, 40, 30)
      c.fillRect(0, 0, 1920, 1080)
      for (let k = 0; k < 160; k++) {
        const t = k < rests / 10 ? seed : n / 4
        c.fillStyle = hsl(noise(k) * 360, 70, 30 + 40 * noise(k + 9))
        const x = (noise(k + 1) * 2400 + t * 400 * (noise(k + 2) - 0.3)) % 2100
        const y = (noise(k + 3) * 1300 + t * 300 * (noise(k + 4) - 0.5) + 2600) % 1300
        c.save()
        c.translate(x - 90, y - 90)
        c.rotate(t * noise(k + 5) * 3)
        c.fillRect(-20 - 90 * noise(k + 6), -20 - 60 * noise(k + 7), 60 + 150 * noise(k + 8), 40 + 110 * noise(k + 10))
        c.restore()
      }
    },
    resting() {
      grounds.busy(1000)
    },
    calm() {
      const g = c.createLinearGradient(0, 0, 0, 1080)
      g.addColorStop(0, hsl(210 + 10 * Math.sin(t), 50, 65))
      g.addColorStop(1, hsl(100 + seed * 30, 40, 30))
      c.fillStyle = g
      c.fillRect(0, 0, 1920, 1080)
      for (let k = 0; k < 12; k++) {
        c.fillStyle = hsl(90 + 20 * noise(k), 30, 25 + 15 * noise(k + 1))
        c.beginPath()
        c.ellipse(
          ((k * 260 - t * 90 + 4000) % 2400) - 200,
          900 + 100 * noise(k),
          260,
          200 + 120 * noise(k + 2),
          0,
          0,
          7,
        )
        c.fill()
      }
    },
    night() {
      c.fillStyle = '#05070c'
      c.fillRect(0, 0, 1920, 1080)
      for (let k = 0; k < 60; k++) {
        c.fillStyle = hsl(40 + 20 * noise(k), 80, 40 + 30 * noise(k + 1))
        c.fillRect(
          (noise(k) * 2200 + t * 160) % 2000,
          500 + 500 * noise(k + 4),
          8 + 20 * noise(k + 2),
          8 + 20 * noise(k + 3),
        )
      }
    },
    letterbox() {
      grounds.busy()
      c.fillStyle = '#000'
      c.fillRect(0, 0, 1920, 132)
      c.fillRect(0, 948, 1920, 132)
    },
    plain() {
      c.fillStyle = '#1d2024'
      c.fillRect(0, 0, 1920, 1080)
    },
    slides() {
      const page = Math.floor(t / 3)
      c.fillStyle = '#f6f4ee'
      c.fillRect(0, 0, 1920, 1080)
      c.fillStyle = '#1f2a44'
      c.font = 'bold 84px sans-serif'
      c.fillText(['Where lift begins', 'Reading the ridge', 'Landing out'][page % 3], 120, 180)
      c.font = '44px sans-serif'
      for (let k = 0; k < 4; k++)
        c.fillText(
          `${k + 1}. ${['Wind', 'Slope', 'Sun', 'Cloud'][(k + page) % 4]} before noon, then again`,
          120,
          330 + k * 90,
        )
      c.fillStyle = hsl(200, 45, 55)
      c.fillRect(120, 780, 1180, 240)
      c.fillStyle = hsl(20 + page * 90, 45, 35 + page * 20)
      c.beginPath()
      c.ellipse(1560, 380, 240, 180 + page * 40, 0, 0, 7)
      c.fill()
    },
    dials() {
      grounds.calm()
      for (const [k, [x, y]] of [
        [220, 820],
        [560, 860],
        [1600, 840],
      ].entries()) {
        c.fillStyle = '#20242a'
        c.beginPath()
        c.arc(x, y, 150, 0, 7)
        c.fill()
        c.strokeStyle = '#e8e4d8'
        c.lineWidth = 8
        c.stroke()
        for (let a = 0; a < 12; a++) {
          c.beginPath()
          c.moveTo(x + 118 * Math.cos(a / 1.91), y + 118 * Math.sin(a / 1.91))
          c.lineTo(x + 138 * Math.cos(a / 1.91), y + 138 * Math.sin(a / 1.91))
          c.stroke()
        }
        c.strokeStyle = '#e06030'
        c.beginPath()
        c.moveTo(x, y)
        c.lineTo(x + 110 * Math.cos(t + k), y + 110 * Math.sin(t + k))
        c.stroke()
      }
    },
  }
  /** Somebody in a room; `x y w h`: the camera's picture. */
  const person = (x, y, w, h, id, virtual) => {
    const skin = [
      [28, 45, 72],
      [24, 40, 45],
      [22, 50, 60],
      [18, 38, 32],
    ][(room + id) % 4]
    const tone = (l) => hsl(skin[0], skin[1], skin[2] + l)
    if (virtual) {
      const g = c.createLinearGradient(x, y, x + w, y + h)
      g.addColorStop(0, hsl(260, 40, 35))
      g.addColorStop(1, hsl(180, 40, 55))
      c.fillStyle = g
    } else c.fillStyle = hsl(30 + 60 * noise(id + 50, room), 14, 62)
    c.fillRect(x, y, w, h)
    c.fillStyle = hsl(20, 20, 34)
    if (!virtual) c.fillRect(x + w * 0.06, y + h * 0.1, w * 0.16, h * 0.5)
    const r = h * 0.2
    const cx = x + w * (0.5 + 0.05 * Math.sin(t * 1.3 + id))
    const cy = y + h * (0.44 + 0.02 * Math.sin(t * 2 + id))
    const oval = (dx, dy, rx, ry, fill) => {
      c.fillStyle = fill
      c.beginPath()
      c.ellipse(cx + dx * r, cy + dy * r, rx * r, ry * r, 0, 0, 7)
      c.fill()
    }
    const hair = hsl(25, 40, 10 + 22 * noise(id + 60, room))
    oval(0, 2.9, 1.9, 1.5, hsl(360 * noise(id + 61), 40, 38))
    c.fillStyle = tone(-8)
    c.fillRect(cx - 0.36 * r, cy + 0.6 * r, 0.72 * r, r)
    oval(0, -0.18, 0.98, 1.22, hair)
    const g = c.createRadialGradient(cx - 0.2 * r, cy - 0.3 * r, 0.1 * r, cx, cy, 1.3 * r)
    g.addColorStop(0, tone(8))
    g.addColorStop(1, tone(-10))
    oval(0, 0.08, 0.82, 1.05, g)
    oval(0, -0.86, 0.8, 0.34, hair)
    for (const side of [-1, 1]) {
      oval(side * 0.34, -0.12, 0.17, 0.1, tone(-14))
      oval(side * 0.34, -0.1, 0.14, 0.075, '#f4f1ec')
      oval(side * 0.34 + 0.02 * Math.sin(t), -0.1, 0.07, 0.07, hsl(25, 40, 16))
      c.strokeStyle = hair
      c.lineWidth = 0.07 * r
      c.beginPath()
      c.arc(cx + side * 0.34 * r, cy - 0.1 * r, 0.24 * r, Math.PI * 1.2, Math.PI * 1.8)
      c.stroke()
    }
    c.strokeStyle = tone(-18)
    c.lineWidth = 0.05 * r
    c.beginPath()
    c.moveTo(cx + 0.02 * r, cy)
    c.lineTo(cx + 0.1 * r, cy + 0.3 * r)
    c.lineTo(cx - 0.08 * r, cy + 0.33 * r)
    c.stroke()
    oval(0, 0.62, 0.28, 0.06 + 0.09 * Math.abs(Math.sin(t * 5 + id)), '#7a2f2c')
  }
  const letters = (text, x, y, size) => {
    c.font = `${size}px sans-serif`
    c.fillStyle = '#fff'
    c.fillText(text, x, y)
  }
  const words = [
    'lift at the ridge',
    'gate four',
    'what a turn',
    'hold it',
    'lower than I thought',
    'nice line',
    'again',
  ]
  grounds[make.game]()
  if (make.list) {
    c.fillStyle = 'rgb(10 12 20 / 0.72)'
    c.fillRect(make.list.x, make.list.y, make.list.width, make.list.height)
    for (let k = 0; k < 4; k++)
      letters(`${k + 1}  ${['Kestrel', 'Wren', 'Odo', 'Ines'][k]}`, make.list.x + 20, make.list.y + 48 + k * 48, 30)
  }
  if (make.chat) {
    c.save()
    c.beginPath()
    c.rect(make.chat.x, make.chat.y, make.chat.width, make.chat.height)
    c.clip()
    c.fillStyle = 'rgb(10 12 20 / 0.72)'
    c.fillRect(make.chat.x, make.chat.y, make.chat.width, make.chat.height)
    for (let k = 0; k < 14; k++) {
      const line = k + Math.floor(t * 1.2)
      letters(words[line % words.length], make.chat.x + 20, make.chat.y + make.chat.height - 20 - (13 - k) * 42, 26)
    }
    c.restore()
  }
  for (const [id, cam] of [...(make.camera ? [make.camera] : []), ...(make.cameras ?? [])].entries()) {
    const { x, y, width: w, height: h, border = 0, tilt = 0, virtual } = cam
    c.save()
    c.translate(x + w / 2, y + h / 2)
    c.rotate(tilt)
    c.translate(-x - w / 2, -y - h / 2)
    const b = border === 'glow' ? 8 : border
    c.fillStyle = border === 'glow' ? hsl((t * 220) % 360, 90, 60) : '#e8e4d8'
    if (b) c.fillRect(x, y, w, h)
    c.beginPath()
    c.rect(x + b, y + b, w - 2 * b, h - 2 * b)
    c.clip()
    person(x + b, y + b, w - 2 * b, h - 2 * b, id, virtual)
    c.fillStyle = `rgb(10 8 20 / ${make.dusk ?? 0})`
    c.fillRect(x, y, w, h)
    c.restore()
  }
  for (const [id, tile] of (make.tiles ?? []).entries())
    if (make.off?.includes(id)) {
      c.fillStyle = '#33383f'
      c.fillRect(tile.x, tile.y, tile.width, tile.height)
      letters('Kestrel', tile.x + tile.width / 2 - 60, tile.y + tile.height / 2, 40)
    } else {
      c.save()
      c.beginPath()
      c.rect(tile.x, tile.y, tile.width, tile.height)
      c.clip()
      person(tile.x, tile.y, tile.width, tile.height, id)
      c.restore()
    }
  if (make.full) person(0, 0, 1920, 1080, 0)
  return canvas.convertToBlob({ type: 'image/jpeg', quality: 0.95 }).then(async (blob) => {
    const bytes = new Uint8Array(await blob.arrayBuffer())
    let text = ''
    for (let i = 0; i < bytes.length; i += 8192) text += String.fromCharCode(...bytes.subarray(i, i + 8192))
    return btoa(text)
  })
}

/** What there is in a make, px of a frame `height` high. */
function truthOf(make, height) {
  const scale = height / 1080
  const at = (role, { x, y, width, height: h, border = 0 }) => {
    const b = border === 'glow' ? 8 : border
    return { role, x: (x + b) * scale, y: (y + b) * scale, width: (width - 2 * b) * scale, height: (h - 2 * b) * scale }
  }
  return [
    ...(make.camera ? [at('face', make.camera)] : []),
    ...(make.cameras ?? []).map((c) => at('face', c)),
    ...(make.tiles ?? []).flatMap((t, n) => (make.off?.includes(n) ? [] : [at('speaker', t)])),
    ...(make.slides ? [at('slides', make.slides)] : []),
    ...(make.full ? [at('face', { x: 0, y: 0, width: 1920, height: 1080 })] : []),
    ...(make.list ? [at('hud', make.list)] : []),
    ...(make.chat ? [at('chat', make.chat)] : []),
  ]
}

/**
 * Draws pieces, `seconds` of each from its second `from` on, one after the other, and codes them as one file. `rate`: frames a second; `height`: lines; `coding`:
 * what else ffmpeg is told.
 */
export async function codePieces(page, file, pieces, { rate = RATE, height = 1080, coding = [] } = {}) {
  const coder = spawn(
    'ffmpeg',
    [
      ...`-v error -y -f image2pipe -framerate ${rate} -i - -c:v libx264 -preset veryfast -pix_fmt yuv420p`.split(' '),
      ...coding,
      file,
    ],
    { stdio: ['pipe', 'inherit', 'inherit'] },
  )
  const done = new Promise((resolve, reject) =>
    coder.on('exit', (code) => (code === 0 ? resolve() : reject(new Error(`ffmpeg: ${code}`)))),
  )
  const width = Math.round((height * 16) / 9)
  for (const { make, seed, seconds, from = 0 } of pieces)
    for (let n = 0; n < rate * seconds; n++) {
      const at = (from + n / rate) * RATE
      coder.stdin.write(Buffer.from(await page.evaluate(drawFrame, { make, seed, n: at, width, height }), 'base64'))
    }
  coder.stdin.end()
  await done
}

/** Draws and codes a make into a folder, with the truth about it beside it. */
export async function makeFootage(page, folder, name, make, seed, truth = {}) {
  const height = make.height ?? 1080
  await codePieces(page, join(folder, `${name}.mp4`), [{ make, seed, seconds: SECONDS }], {
    height,
    coding: ['-crf', String(make.crf ?? 24), '-g', String(RATE)],
  })
  writeFileSync(join(folder, `${name}.json`), JSON.stringify({ ...truth, regions: truthOf(make, height) }))
}

/** Draws and codes every make with each seed into a folder. */
export async function makeFaceFootage(page, folder, seeds) {
  mkdirSync(folder, { recursive: true })
  for (const make of MAKES)
    for (const seed of seeds)
      await makeFootage(page, folder, `${make.name.replaceAll(/[^a-z0-9]+/gi, '-')}-${seed}`, make, seed)
}
