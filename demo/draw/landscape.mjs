// Sky, clouds and rolling hills: the ground everything else in the demo footage stands on.

/** Smooth, repeatable height of a hill line at `x` (px): a sum of sines whose phases come from `seed`. */
function ridge(x, seed, roughness) {
  const a = Math.sin(x * 0.0021 + seed * 1.7) + 0.55 * Math.sin(x * 0.0047 + seed * 3.1)
  return a + roughness * (0.3 * Math.sin(x * 0.0113 + seed * 5.3) + 0.12 * Math.sin(x * 0.031 + seed * 7.9))
}

export const palettes = {
  day: {
    sky: ['#4f8fbc', '#a9cfdf', '#e6ead6'],
    sun: '#f6ecc0',
    cloud: '#f3f6f6',
    hills: ['#9fb8a0', '#7a9d7c', '#56825f', '#345f47', '#23452f'],
  },
  dawn: {
    sky: ['#59749c', '#d8a58c', '#f3d9ae'],
    sun: '#fff0c9',
    cloud: '#efd3c4',
    hills: ['#b79b98', '#8f7f84', '#68676f', '#46535a', '#2b3d40'],
  },
  noon: {
    sky: ['#2f79b5', '#86bcd9', '#d5e6e2'],
    sun: '#fffbe2',
    cloud: '#ffffff',
    hills: ['#a7bf8e', '#88ab6c', '#6a9350', '#b39a55', '#4c7439'],
  },
  dusk: {
    sky: ['#2d3a5d', '#96607a', '#e99a63'],
    sun: '#ffce7a',
    cloud: '#b0708a',
    hills: ['#7a5a76', '#5b4767', '#433a57', '#2d2d45', '#1c2032'],
  },
}

export function drawSky(ctx, w, h, palette, sunX, sunY) {
  const gradient = ctx.createLinearGradient(0, 0, 0, h * 0.8)
  palette.sky.forEach((colour, i) => gradient.addColorStop(i / (palette.sky.length - 1), colour))
  ctx.fillStyle = gradient
  ctx.fillRect(0, 0, w, h)
  ctx.fillStyle = palette.sun
  ctx.beginPath()
  ctx.arc(sunX * w, sunY * h, h * 0.062, 0, Math.PI * 2)
  ctx.fill()
}

export function drawClouds(ctx, w, h, palette, drift, count = 6) {
  ctx.fillStyle = palette.cloud
  for (let i = 0; i < count; i++) {
    const size = h * (0.035 + (0.022 * ((i * 37) % 5)) / 4)
    const span = w + size * 12
    const x = ((((i * 0.379 * w + drift * (0.4 + 0.12 * i)) % span) + span) % span) - size * 6
    const y = h * (0.1 + 0.32 * (((i * 53) % 7) / 6))
    ctx.globalAlpha = 0.86
    ctx.beginPath()
    ctx.ellipse(x, y, size * 2.9, size * 0.62, 0, 0, Math.PI * 2)
    ctx.ellipse(x - size * 0.8, y - size * 0.45, size * 1.1, size * 0.7, 0, 0, Math.PI * 2)
    ctx.ellipse(x + size * 0.7, y - size * 0.6, size * 1.4, size * 0.85, 0, 0, Math.PI * 2)
    ctx.fill()
  }
  ctx.globalAlpha = 1
}

/** Draws hill layers from far to near; `scroll` (px) moves the nearest one, farther ones less. */
export function drawHills(ctx, w, h, palette, { scroll, horizon = 0.58, seed = 1, lift = 0 }) {
  const layers = palette.hills.length
  for (let layer = 0; layer < layers; layer++) {
    const depth = (layer + 1) / layers
    const base = h * (horizon + 0.36 * depth * depth) + lift * depth
    const height = h * (0.045 + 0.05 * depth)
    ctx.fillStyle = palette.hills[layer]
    ctx.beginPath()
    ctx.moveTo(0, h)
    for (let x = 0; x <= w + 12; x += 12)
      ctx.lineTo(x, base - height * ridge(x + scroll * depth + layer * 977, seed + layer, depth))
    ctx.lineTo(w, h)
    ctx.fill()
    if (layer > 1)
      drawTrees(ctx, w, { base, height, seed: seed + layer, scroll: scroll * depth + layer * 977, depth, h })
  }
}

function drawTrees(ctx, w, { base, height, seed, scroll, depth, h }) {
  const gap = 130 + 60 * depth
  const first = Math.floor(scroll / gap)
  ctx.fillStyle = 'rgba(20,45,32,0.45)'
  ctx.beginPath()
  for (let i = first - 1; i <= first + Math.ceil(w / gap) + 1; i++) {
    const along = i * gap + 60 * Math.sin(i * 12.9 + seed)
    const x = along - scroll
    const size = h * (0.008 + 0.012 * depth) * (0.7 + 0.5 * Math.abs(Math.sin(i * 4.7)))
    const y = base - height * ridge(along, seed, depth)
    ctx.moveTo(x - size * 0.7, y + size * 0.4)
    ctx.lineTo(x, y - size * 2.1)
    ctx.lineTo(x + size * 0.7, y + size * 0.4)
  }
  ctx.fill()
}
