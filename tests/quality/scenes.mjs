// Made-up recordings for judging how well regions are recognised: what is where is known to the pixel. Grey pictures,
// `[height][width]`.

/** Mulberry32. */
export function seeded(seed) {
  let state = seed >>> 0
  const next = () => {
    state = (state + 0x6d2b79f5) >>> 0
    let t = state
    t = Math.imul(t ^ (t >>> 15), t | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
  return {
    next,
    between: (a, b) => a + (b - a) * next(),
    integer: (a, b) => a + Math.floor((b - a + 1) * next()),
    pick: (list) => list[Math.floor(list.length * next())],
  }
}

const SIDE = 1024

/** A landscape without end: soft noise with hard-edged things in it. */
function texture(random) {
  const pixels = new Uint8Array(SIDE * SIDE)
  const grids = [8, 32, 128].map((cells) => ({
    cells,
    values: Float32Array.from({ length: cells * cells }, () => random.next()),
  }))
  for (let y = 0; y < SIDE; y++)
    for (let x = 0; x < SIDE; x++) {
      let sum = 0
      for (const [k, { cells, values }] of grids.entries()) {
        const [fx, fy] = [(x * cells) / SIDE, (y * cells) / SIDE]
        const [ix, iy] = [Math.floor(fx), Math.floor(fy)]
        const at = (a, b) => values[(b % cells) * cells + (a % cells)]
        const [u, v] = [fx - ix, fy - iy]
        sum +=
          [120, 60, 40][k] *
          ((at(ix, iy) * (1 - u) + at(ix + 1, iy) * u) * (1 - v) +
            (at(ix, iy + 1) * (1 - u) + at(ix + 1, iy + 1) * u) * v)
      }
      pixels[y * SIDE + x] = sum
    }
  for (let n = 0; n < 60; n++) {
    const box = {
      x: random.integer(0, SIDE - 120),
      y: random.integer(0, SIDE - 120),
      width: random.integer(6, 110),
      height: random.integer(6, 110),
    }
    const value = random.integer(10, 240)
    const round = random.next() < 0.5
    for (let y = 0; y < box.height; y++)
      for (let x = 0; x < box.width; x++)
        if (!round || ((x / box.width - 0.5) ** 2 + (y / box.height - 0.5) ** 2) * 4 < 1)
          pixels[(box.y + y) * SIDE + box.x + x] = value
  }
  return pixels
}

export function canvas(width, height, value = 16) {
  return { width, height, pixels: new Uint8Array(width * height).fill(value) }
}

export function fill({ width, height, pixels }, rect, value) {
  const right = Math.min(width, rect.x + rect.width)
  for (let y = Math.max(0, rect.y); y < Math.min(height, rect.y + rect.height); y++)
    pixels.fill(value, y * width + Math.max(0, rect.x), y * width + Math.max(0, right))
}

function ellipse(into, within, cx, cy, rx, ry, value) {
  for (let y = Math.max(within.y, Math.ceil(cy - ry)); y < Math.min(within.y + within.height, cy + ry); y++) {
    const half = rx * Math.sqrt(Math.max(0, 1 - ((y - cy) / ry) ** 2))
    const from = Math.max(within.x, Math.ceil(cx - half))
    const to = Math.min(within.x + within.width, Math.floor(cx + half))
    if (to > from) into.pixels.fill(value, y * into.width + from, y * into.width + to)
  }
}

/** Draws textured ground into a rectangle, seen from somewhere else in every frame. */
function ground(into, rect, pixels, view) {
  const step = Math.round(view.zoom * 65536)
  for (let y = rect.y; y < rect.y + rect.height; y++) {
    const row = (((Math.floor((y - rect.y) * view.zoom) + view.y) & (SIDE - 1)) * SIDE) | 0
    let tx = view.x << 16
    for (let x = rect.x; x < rect.x + rect.width; x++, tx = (tx + step) | 0)
      into.pixels[y * into.width + x] = pixels[row + ((tx >>> 16) & (SIDE - 1))]
  }
}

/** A room that stands still with furniture in it, and somebody who sits and moves in front. */
function camera(random, { wall = random.integer(60, 190), take = 0 } = {}) {
  const things = Array.from({ length: random.integer(2, 5) }, () => ({
    x: random.between(0, 0.8),
    y: random.between(0, 0.6),
    w: random.between(0.08, 0.3),
    h: random.between(0.08, 0.4),
    v: random.integer(20, 235),
  }))
  const skin = random.integer(120, 220)
  const shirt = random.integer(20, 120)
  const [speed, phase, sway] = [random.between(0.7, 2), random.between(0, 6) + take, random.between(0.03, 0.09)]
  const draw = (into, rect, frame) => {
    fill(into, rect, wall)
    for (const t of things)
      fill(
        into,
        clip(
          {
            x: Math.round(rect.x + t.x * rect.width),
            y: Math.round(rect.y + t.y * rect.height),
            width: Math.round(t.w * rect.width),
            height: Math.round(t.h * rect.height),
          },
          rect,
        ),
        t.v,
      )
    const cx = rect.x + rect.width * (0.5 + sway * Math.sin(frame * speed + phase))
    const cy = rect.y + rect.height * (0.45 + 0.4 * sway * Math.cos(frame * speed * 1.3 + phase))
    const head = Math.min(rect.width, rect.height) * 0.19
    ellipse(into, rect, cx - sway * rect.width * 0.3, cy + head * 2.9, head * 1.9, head * 1.8, shirt)
    ellipse(into, rect, cx, cy, head * 0.8, head, skin)
    ellipse(into, rect, cx - head * 0.3, cy - head * 0.15, head * 0.1, head * 0.1, 30)
    ellipse(into, rect, cx + head * 0.3, cy - head * 0.15, head * 0.1, head * 0.1, 30)
    ellipse(
      into,
      rect,
      cx,
      cy + head * 0.45,
      head * 0.3,
      head * (0.05 + 0.12 * Math.abs(Math.sin(frame * 1.7 + phase))),
      60,
    )
  }
  return { wall, draw }
}

function clip(a, b) {
  const x = Math.max(a.x, b.x)
  const y = Math.max(a.y, b.y)
  return {
    x,
    y,
    width: Math.max(0, Math.min(a.x + a.width, b.x + b.width) - x),
    height: Math.max(0, Math.min(a.y + a.height, b.y + b.height) - y),
  }
}

/** Bars, boxes and digits that a game lays over its picture; the digits change. */
function displays(random, width, height) {
  const boxes = Array.from({ length: random.integer(2, 4) }, () => ({
    x: Math.round(width * random.between(0, 0.8)),
    y: Math.round(height * random.pick([random.between(0.01, 0.1), random.between(0.86, 0.92)])),
    width: Math.round(width * random.between(0.06, 0.18)),
    height: Math.round(height * random.between(0.03, 0.06)),
    v: random.integer(10, 60),
  }))
  return (into, frame) => {
    const unit = height / 720
    for (const b of boxes) {
      fill(into, b, b.v)
      for (let n = 0; n < 8; n++)
        fill(
          into,
          {
            x: b.x + Math.round((8 + n * 14) * unit),
            y: b.y + Math.round(6 * unit),
            width: Math.round(9 * unit),
            height: Math.max(3, b.height - Math.round((12 + ((frame * (n + 3)) % 7)) * unit)),
          },
          220,
        )
    }
  }
}

const even = (v) => 2 * Math.round(v / 2)

/**
 * A game with a camera's picture over it: `place` is a corner or the middle of an edge, `share` its width as a share
 * of the frame's, `border` px.
 */
export function gameScene(
  seed,
  { width, height },
  { place, share, border, inset = 0.02, withCamera = true, take = 0, proportion },
) {
  const random = seeded(seed)
  const pixels = texture(seeded(seed + take))
  const w = even(width * share)
  const h = even(w * (proportion ?? random.pick([9 / 16, 3 / 4, 0.66])))
  const margin = even(width * inset)
  const x = along(place, 'w', 'e', width, w, margin)
  const y = along(place, 'n', 's', height, h, margin)
  const outer = { x, y, width: w, height: h }
  const rect = { x: x + border, y: y + border, width: w - 2 * border, height: h - 2 * border }
  const film = camera(random, { take })
  const over = displays(random, width, height)
  // A border that can be told from the wall behind.
  const colour = random.pick([18, 240, film.wall > 125 ? film.wall - 70 : film.wall + 70])
  return {
    width,
    height,
    truth: withCamera ? [{ role: 'face', rect }] : [],
    frame(n) {
      const into = canvas(width, height)
      ground(into, { x: 0, y: 0, width, height }, pixels, {
        x: (n * 137 + seed) & 1023,
        y: (n * 61) & 1023,
        zoom: 0.5 + 0.25 * Math.sin(n * 0.9),
      })
      over(into, n)
      if (withCamera) {
        if (border > 0) fill(into, outer, colour)
        film.draw(into, rect, n)
      }
      return into.pixels
    },
  }
}

const GRIDS = { 2: [2, 1], 3: [2, 2], 4: [2, 2], 6: [3, 2], 9: [3, 3] }

/** A call of several people side by side; `gutter` px between them, name bars or none. */
export function callScene(seed, { width, height }, { people, gutter, background, names, take = 0 }) {
  const random = seeded(seed)
  const [columns, rows] = GRIDS[people]
  const room = { width: (width - gutter * (columns + 1)) / columns, height: (height - gutter * (rows + 1)) / rows }
  const tile = {
    width: even(Math.min(room.width, (room.height * 16) / 9)),
    height: even(Math.min(room.height, (room.width * 9) / 16)),
  }
  const total = {
    width: columns * tile.width + (columns - 1) * gutter,
    height: rows * tile.height + (rows - 1) * gutter,
  }
  const [left, top] = [even((width - total.width) / 2), even((height - total.height) / 2)]
  const truth = Array.from({ length: people }, (_, i) => {
    const row = Math.floor(i / columns)
    const inRow = Math.min(columns, people - row * columns)
    const indent = even(((columns - inRow) * (tile.width + gutter)) / 2)
    return {
      role: 'speaker',
      rect: {
        x: left + indent + (i % columns) * (tile.width + gutter),
        y: top + row * (tile.height + gutter),
        ...tile,
      },
    }
  })
  // Rooms that touch differ in brightness, or nobody could tell where one ends.
  const first = random.integer(0, 130)
  const films = truth.map((_, i) => camera(random, { wall: 60 + ((first + i * 47) % 131), take }))
  return {
    width,
    height,
    truth,
    frame(n) {
      const into = canvas(width, height, background)
      truth.forEach(({ rect }, i) => {
        films[i].draw(into, rect, n)
        if (names) {
          fill(into, { x: rect.x + 12, y: rect.y + rect.height - 34, width: even(rect.width * 0.4), height: 24 }, 40)
          for (let k = 0; k < 7; k++)
            fill(into, { x: rect.x + 20 + k * 12, y: rect.y + rect.height - 30, width: 8, height: 14 }, 225)
        }
      })
      return into.pixels
    },
  }
}

/** Where something of a length lies: at one end of its room, at the other, or between, on whole pairs of pixels. */
function along(place, start, end, room, length, margin) {
  if (place.includes(start)) return margin
  return place.includes(end) ? room - length - margin : even((room - length) / 2)
}
