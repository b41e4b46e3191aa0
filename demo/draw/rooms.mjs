// The club's call (two tiles, black above and below) and its webinar (slides, a speaker in a corner).
import { drawGlider } from './glider.mjs'
import { drawHills, drawSky, palettes } from './landscape.mjs'
import { drawPerson, people } from './person.mjs'

const W = 1280
const H = 720

function write(ctx, words, x, y, { size = 20, weight = 600, colour = '#f4f2ec', align = 'left' } = {}) {
  ctx.font = `${weight} ${size}px "Demo Sans"`
  ctx.textAlign = align
  ctx.fillStyle = colour
  ctx.fillText(words, x, y)
}

/** Two 638 × 360 tiles with a 4 px gutter; `levels` maps a speaker's name to the mouth's opening 0..1. */
export function drawCall(ctx, t, levels) {
  ctx.fillStyle = '#000'
  ctx.fillRect(0, 0, W, H)
  const tiles = [
    { x: 0, y: 180, width: 638, height: 360, who: people.odo, name: 'Odo Marsh', talk: levels.Odo ?? 0 },
    { x: 642, y: 180, width: 638, height: 360, who: people.wrenAtHome, name: 'Wren Hallow', talk: levels.Wren ?? 0 },
  ]
  for (const tile of tiles) {
    drawPerson(ctx, tile, tile.who, {
      t: t + tile.x,
      talk: tile.talk,
      joy: tile.name.startsWith('Wren') && t > 27.6 && t < 29 ? 0.35 : 0,
    })
    ctx.fillStyle = 'rgba(20,26,26,0.75)'
    ctx.fillRect(tile.x + 14, tile.y + 320, 132, 28)
    write(ctx, tile.name, tile.x + 24, tile.y + 340, { size: 17 })
  }
}

const slides = [
  { from: 0, title: 'Reading thermals', draw: slideTitle },
  { from: 4.8, title: 'Where a thermal starts', draw: slideThermal },
  { from: 16.4, title: 'The core leans with the wind', draw: slideLean },
  { from: 22.4, title: 'Last Saturday, climb by hour', draw: slideChart },
]

export function drawWebinar(ctx, t, level) {
  ctx.fillStyle = '#26302c'
  ctx.fillRect(0, 0, W, H)
  write(ctx, 'Larkmoor Gliding Club', 32, 46, { size: 22, colour: '#cfd9cc' })
  const slide = slides.findLast((s) => s.from <= t)
  const area = { x: 32, y: 72, width: 928, height: 522 }
  ctx.save()
  ctx.beginPath()
  ctx.rect(area.x, area.y, area.width, area.height)
  ctx.clip()
  ctx.translate(area.x, area.y)
  ctx.fillStyle = '#f7f3e6'
  ctx.fillRect(0, 0, area.width, area.height)
  slide.draw(ctx, t)
  if (slide.from) write(ctx, slide.title, 48, 74, { size: 40, weight: 700, colour: '#24392c' })
  ctx.restore()
  write(ctx, `${slides.indexOf(slide) + 1} / ${slides.length}`, 32, 640, { size: 20, colour: '#9fb0a4' })
  drawPerson(ctx, { x: 984, y: 450, width: 264, height: 198 }, people.ines, { t, talk: level })
  write(ctx, 'Ines Fenn', 984, 676, { size: 18, colour: '#cfd9cc' })
}

function slideTitle(ctx) {
  drawSky(ctx, 928, 522, palettes.noon, 0.8, 0.2)
  drawHills(ctx, 928, 522, palettes.noon, { scroll: 300, seed: 2, horizon: 0.62 })
  write(ctx, 'Reading thermals', 60, 160, { size: 64, weight: 700, colour: '#17301f' })
  write(ctx, 'from the ground up', 62, 214, { size: 34, colour: '#17301f' })
  drawGlider(ctx, { x: 690, y: 250, length: 240, pitch: -0.1 })
}

function slideThermal(ctx, t) {
  const points = ['dark fields', 'dry soil', 'the sunny side of a wood']
  points.forEach((p, i) => {
    if (t < 10.4 + i * 1.3) return
    ctx.fillStyle = '#2e5e3e'
    ctx.fillRect(52, 150 + i * 70, 18, 18)
    write(ctx, p, 92, 168 + i * 70, { size: 32, colour: '#26352c' })
  })
  ctx.fillStyle = '#b98a4a'
  ctx.fillRect(560, 440, 330, 30)
  ctx.fillStyle = 'rgba(201,100,60,0.35)'
  for (let i = 0; i < 6; i++) {
    ctx.beginPath()
    ctx.ellipse(725, 420 - i * 52, 40 + i * 15, 30, 0, 0, Math.PI * 2)
    ctx.fill()
  }
}

function slideLean(ctx) {
  ctx.strokeStyle = '#4a6472'
  ctx.lineWidth = 8
  for (let i = 0; i < 5; i++) {
    ctx.beginPath()
    ctx.moveTo(240 + i * 10, 470 - i * 70)
    ctx.quadraticCurveTo(340 + i * 60, 440 - i * 70, 470 + i * 60, 452 - i * 74)
    ctx.stroke()
  }
  write(ctx, 'wind', 80, 320, { size: 32, colour: '#4a6472' })
  drawGlider(ctx, { x: 690, y: 190, length: 170, bank: 0.5 })
}

function slideChart(ctx) {
  const climbs = [0.6, 1.1, 1.9, 2.6, 3.1, 2.8, 2.2, 1.2]
  climbs.forEach((c, i) => {
    ctx.fillStyle = c > 2.5 ? '#c98a1b' : '#2e5e3e'
    ctx.fillRect(90 + i * 98, 430 - c * 88, 62, c * 88)
    write(ctx, `${11 + i}`, 121 + i * 98, 466, { size: 24, align: 'center', colour: '#26352c' })
    write(ctx, c.toFixed(1), 121 + i * 98, 418 - c * 88, { size: 22, align: 'center', colour: '#26352c' })
  })
}
