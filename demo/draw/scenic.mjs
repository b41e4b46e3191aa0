// Three landscape shots from the club's field cameras.
import { drawGlider } from './glider.mjs'
import { drawClouds, drawHills, drawSky, palettes } from './landscape.mjs'

const W = 1920
const H = 1080

export function drawDawn(ctx, t) {
  drawSky(ctx, W, H, palettes.dawn, 0.3, 0.5 - t * 0.006)
  drawClouds(ctx, W, H, palettes.dawn, t * 16)
  drawHills(ctx, W, H, palettes.dawn, { scroll: t * 46, seed: 7, horizon: 0.55 })
  ctx.fillStyle = 'rgba(255,240,215,0.25)'
  for (let i = 0; i < 3; i++) {
    ctx.beginPath()
    ctx.ellipse(500 + i * 560 + t * 12, 760 + i * 24, 620, 34, 0, 0, Math.PI * 2)
    ctx.fill()
  }
  drawGlider(ctx, { x: 200 + t * 120, y: 330 - 14 * t, length: 170, pitch: -0.06, body: '#46535a', accent: '#8f5a52' })
}

export function drawWinch(ctx, t) {
  drawSky(ctx, W, H, palettes.noon, 0.85, 0.14)
  drawClouds(ctx, W, H, palettes.noon, t * 22)
  drawHills(ctx, W, H, palettes.noon, { scroll: 900, seed: 11, horizon: 0.62 })
  ctx.fillStyle = '#5d8746'
  ctx.fillRect(0, 900, W, 180)
  ctx.fillStyle = '#d9d3bd'
  for (let i = 0; i < 9; i++) ctx.fillRect(80 + i * 220, 968, 110, 8)
  ctx.fillStyle = '#8a3a2c'
  ctx.fillRect(1540, 800, 260, 110)
  ctx.fillStyle = '#6e2d23'
  ctx.beginPath()
  ctx.moveTo(1520, 800)
  ctx.lineTo(1670, 730)
  ctx.lineTo(1820, 800)
  ctx.fill()
  const run = Math.max(0, t - 1.5)
  const x = 160 + 30 * run * run
  const y = 930 - Math.max(0, run - 2) ** 2 * 34
  ctx.strokeStyle = 'rgba(40,40,40,0.6)'
  ctx.lineWidth = 2
  ctx.beginPath()
  ctx.moveTo(x + 60, y)
  ctx.lineTo(1900, 950)
  ctx.stroke()
  drawGlider(ctx, { x, y: y - 22, length: 330, pitch: -Math.min(0.6, Math.max(0, run - 2) * 0.16) })
}

export function drawDusk(ctx, t) {
  drawSky(ctx, W, H, palettes.dusk, 0.68, 0.46 + t * 0.008)
  drawClouds(ctx, W, H, palettes.dusk, -t * 14)
  drawHills(ctx, W, H, palettes.dusk, { scroll: -t * 30, seed: 15, horizon: 0.6 })
  ctx.strokeStyle = '#1a1a2a'
  ctx.lineWidth = 4
  for (let i = 0; i < 7; i++) {
    const x = 300 + i * 74 + t * 60
    const y = 300 + 40 * Math.abs(i - 3) + 10 * Math.sin(t * 2 + i)
    const flap = 14 * Math.sin(t * 9 + i)
    ctx.beginPath()
    ctx.moveTo(x - 24, y - flap)
    ctx.lineTo(x, y)
    ctx.lineTo(x + 24, y - flap)
    ctx.stroke()
  }
  drawGlider(ctx, {
    x: 1720 - t * 110,
    y: 420 + 20 * Math.sin(t),
    length: 260,
    bank: 0.3 * Math.sin(t * 0.8),
    body: '#2a2840',
    accent: '#e99a63',
  })
}
