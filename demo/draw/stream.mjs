// The club's evening stream: the soaring game with its instruments, and the pilot's bordered camera in a lower corner.
import { leanOut, loudMoment, streamPlaces } from '../script.mjs'
import { drawGlider } from './glider.mjs'
import { drawClouds, drawHills, drawSky, palettes } from './landscape.mjs'
import { drawPerson, people } from './person.mjs'

const W = 1920
const H = 1080

/** Seconds at which the glider passes each gate of the course. */
const gateTimes = [3.2, 8.6, 14.6, 20.4, 27.5, 33.4]

const ramp = (t, from, to, edge) => Math.max(0, Math.min(1, (t - from) / edge, (to - t) / edge))
const smooth = (x) => x * x * (3 - 2 * x)

export function drawStream(ctx, t, level) {
  const lift = smooth(ramp(t, 16.6, 26, 1.6))
  const speed = 240 + 160 * smooth(ramp(t, 9, 22, 3))
  const scroll = t * 330 + 40 * Math.sin(t * 0.5)
  drawSky(ctx, W, H, palettes.day, 0.62, 0.2)
  drawClouds(ctx, W, H, palettes.day, -scroll * 0.25)
  drawHills(ctx, W, H, palettes.day, { scroll, seed: 4, lift: lift * 70 })
  const x = 880 + 120 * Math.sin(t * 0.53)
  const y = 470 + 70 * Math.sin(t * 0.9) - 130 * lift
  for (const [i, at] of gateTimes.entries())
    drawGate(
      ctx,
      x + (at - t) * 620,
      450 + 60 * Math.sin(at * 1.7) - 130 * smooth(ramp(at, 16.6, 26, 1.6)),
      i + 4,
      t > at,
    )
  if (lift > 0.05) drawThermal(ctx, x, y, t, lift)
  drawGlider(ctx, {
    x,
    y,
    length: 420,
    bank: 0.5 * Math.sin(t * 0.7) + lift * 0.5 * Math.sin(t * 3),
    pitch: -0.1 * Math.cos(t * 0.9) - 0.16 * lift,
  })
  drawInstruments(ctx, t, {
    altitude: 1180 + 4 * t + 160 * lift,
    climb: -0.8 + 4.6 * lift + 0.3 * Math.sin(t * 2),
    speed: speed / 2.6,
  })
  drawEvents(ctx, t)
  drawMap(ctx, t)
  drawFacecam(ctx, t, level)
}

function drawGate(ctx, x, y, number, passed) {
  if (x < -160 || x > W + 160) return
  ctx.strokeStyle = passed ? '#5aa06c' : '#e0a02c'
  ctx.lineWidth = 16
  ctx.beginPath()
  ctx.ellipse(x, y, 66, 128, 0, 0, Math.PI * 2)
  ctx.stroke()
  ctx.strokeStyle = 'rgba(255,255,255,0.75)'
  ctx.lineWidth = 4
  ctx.stroke()
  ctx.fillStyle = 'rgba(24,34,32,0.8)'
  ctx.fillRect(x - 30, y - 176, 60, 38)
  text(ctx, String(number), x, y - 148, { size: 26, weight: 700, align: 'center', colour: '#fff' })
}

function drawThermal(ctx, x, y, t, lift) {
  ctx.strokeStyle = `rgba(255,245,210,${0.55 * lift})`
  ctx.lineWidth = 5
  for (let i = 0; i < 5; i++) {
    const rise = ((t * 220 + i * 90) % 450) - 120
    ctx.beginPath()
    ctx.ellipse(x + 20 * Math.sin(t * 2 + i), y + 260 - rise, 120 + 22 * i, 22, 0, 0.2, Math.PI - 0.2)
    ctx.stroke()
  }
}

function panel(ctx, x, y, w, h) {
  ctx.fillStyle = 'rgba(22,32,32,0.82)'
  ctx.beginPath()
  ctx.roundRect(x, y, w, h, 10)
  ctx.fill()
}

function text(ctx, words, x, y, { size = 26, weight = 600, colour = '#f2efe4', align = 'left' } = {}) {
  ctx.font = `${weight} ${size}px "Demo Sans"`
  ctx.textAlign = align
  ctx.fillStyle = colour
  ctx.fillText(words, x, y)
}

function drawInstruments(ctx, t, { altitude, climb, speed }) {
  panel(ctx, 40, 36, 330, 168)
  text(ctx, 'ALT', 64, 84, { size: 24, colour: '#a9bdb4' })
  text(ctx, `${altitude.toFixed(0)} m`, 346, 86, { size: 34, align: 'right' })
  text(ctx, 'LIFT', 64, 134, { size: 24, colour: '#a9bdb4' })
  text(ctx, `${climb >= 0 ? '+' : '−'}${Math.abs(climb).toFixed(1)} m/s`, 346, 136, {
    size: 34,
    align: 'right',
    colour: climb > 0 ? '#ffd36b' : '#f2efe4',
  })
  text(ctx, 'SPEED', 64, 184, { size: 24, colour: '#a9bdb4' })
  text(ctx, `${speed.toFixed(0)} km/h`, 346, 186, { size: 34, align: 'right' })
  panel(ctx, 820, 36, 280, 64)
  text(ctx, 'NINE GATES ALOFT', 960, 62, { size: 20, align: 'center', colour: '#a9bdb4' })
  text(ctx, `heat 3   ${clock(t + 212)}`, 960, 90, { size: 24, align: 'center' })
}

const clock = (seconds) => `${Math.floor(seconds / 60)}:${(seconds % 60).toFixed(1).padStart(4, '0')}`

const events = [
  { at: -9, words: 'Larkmoor joins heat 3' },
  { at: 3.2, words: 'gate 4   Wren   0:36.9' },
  { at: 8.6, words: 'gate 5   Wren   0:41.2' },
  { at: 14.6, words: 'gate 6   Wren   0:44.8' },
  { at: 20.4, words: 'gate 7   +3.0 s clean turn', loud: true },
  { at: 27.5, words: 'gate 8   Wren   0:39.0' },
  { at: 33.4, words: 'finish   Wren takes the heat', loud: true },
]

function drawEvents(ctx, t) {
  panel(ctx, 1440, 36, 440, 168)
  const shown = events.filter((e) => e.at <= t).slice(-3)
  shown.forEach((event, i) => {
    const fresh = Math.max(0, 1 - (t - event.at) / 1.5)
    text(ctx, event.words, 1466, 84 + i * 48, {
      size: 27,
      colour: colourOf(event, fresh),
    })
  })
}

function drawMap(ctx, t) {
  panel(ctx, 40, 816, 300, 214)
  ctx.strokeStyle = '#6f8a7e'
  ctx.lineWidth = 4
  ctx.beginPath()
  const at = (p) => [64 + 252 * p, 925 + 60 * Math.sin(p * 7) * Math.cos(p * 3)]
  for (let p = 0; p <= 1; p += 0.02) ctx.lineTo(...at(p))
  ctx.stroke()
  gateTimes.forEach((g) => {
    const [x, y] = at(0.1 + g / 45)
    ctx.fillStyle = t > g ? '#5aa06c' : '#e0a02c'
    ctx.fillRect(x - 6, y - 6, 12, 12)
  })
  const [x, y] = at(0.1 + t / 45)
  ctx.fillStyle = '#f6f2e8'
  ctx.beginPath()
  ctx.arc(x, y, 9, 0, Math.PI * 2)
  ctx.fill()
}

function drawFacecam(ctx, t, level) {
  const { facecam, border } = streamPlaces
  ctx.fillStyle = '#e3b341'
  ctx.fillRect(facecam.x, facecam.y, facecam.width, facecam.height)
  const box = {
    x: facecam.x + border,
    y: facecam.y + border,
    width: facecam.width - 2 * border,
    height: facecam.height - 2 * border,
  }
  const joy = smooth(ramp(t, loudMoment.from - 0.1, loudMoment.to + 0.6, 0.4)) + 0.6 * smooth(ramp(t, 33.2, 36, 0.5))
  const lean = 0.46 * smooth(ramp(t, leanOut.from, leanOut.to, 0.45))
  drawPerson(ctx, box, people.wren, { t, talk: level, joy: Math.min(1, joy), lean })
}

function colourOf({ loud }, fresh) {
  if (loud) return '#ffd36b'
  return fresh > 0 ? '#ffffff' : '#cfd6cf'
}
