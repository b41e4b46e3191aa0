// Scenes for the arrangements' score, as data: where regions lie, what of each must not be cut, and where heads are.

const FULL = { width: 1920, height: 1080 }

/** A head in a camera's picture: its share of the height, and where its middle is across. */
function headIn({ x, y, width, height }, across = 0.5, share = 0.5) {
  const h = share * height
  const w = Math.min(0.8 * h, 0.9 * width)
  return { x: x + across * (width - w), y: y + 0.16 * height, width: w, height: h }
}

const camera = (bounds, across, role = 'face') => ({ role, bounds, keep: null, faces: [headIn(bounds, across)] })
const read = (role, bounds) => ({ role, bounds, keep: bounds, faces: [] })
const game = (bounds) => ({ role: 'game', bounds, keep: null, faces: [] })

/** A box of a size in one of a frame's corners. */
function corner(place, width, height, margin = 30, frame = FULL) {
  return {
    x: place.includes('w') ? margin : frame.width - width - margin,
    y: place.includes('n') ? margin : frame.height - height - margin,
    width,
    height,
  }
}

/** What is left of a frame beside a camera in a corner, in the proportion that games are seen in. */
function beside(place, cameraWidth, frame = FULL) {
  const width = frame.width - cameraWidth - 90
  return { x: place.includes('w') ? frame.width - width : 0, y: 0, width, height: frame.height }
}

const CORNERS = ['nw', 'ne', 'sw', 'se']
const CAMERAS = [
  ['landscape', 480, 270],
  ['square', 340, 340],
  ['upright', 270, 400],
  ['small', 256, 144],
  ['wide and low', 640, 240],
]

function streams() {
  return CORNERS.flatMap((place) =>
    CAMERAS.map(([kind, w, h]) => ({
      name: `stream, ${kind} camera ${place}`,
      frame: FULL,
      regions: [camera(corner(place, w, h)), game(beside(place, w))],
    })),
  )
}

function streamsWithExtras() {
  const extras = [
    ['score', 'hud', { x: 760, y: 24, width: 400, height: 90 }],
    ['list', 'hud', { x: 1540, y: 60, width: 340, height: 420 }],
    ['chat', 'chat', { x: 1500, y: 500, width: 390, height: 540 }],
    ['map', 'hud', { x: 40, y: 760, width: 280, height: 280 }],
  ]
  return extras.flatMap(([kind, role, bounds]) =>
    CORNERS.map((place) => ({
      name: `stream with a ${kind}, camera ${place}`,
      frame: FULL,
      regions: [
        camera(corner(place, 420, 236, 16), 0.4),
        game({ x: 460, y: 120, width: 1000, height: 900 }),
        read(role, bounds),
      ],
    })),
  )
}

function talks() {
  const all = []
  for (const [kind, proportion] of [
    ['16:9', 16 / 9],
    ['4:3', 4 / 3],
  ]) {
    const slides = { x: 40, y: 150, width: 1360, height: Math.round(1360 / proportion) }
    if (slides.height > 900) Object.assign(slides, { height: 900, width: Math.round(900 * proportion) })
    const side = { x: 1440, y: 380, width: 440, height: 330 }
    const inset = corner('se', 360, 203)
    const whole = { x: 0, y: 0, width: Math.min(1920, Math.round(1080 * proportion)), height: 1080 }
    all.push(
      { name: `talk, ${kind} slides, speaker beside`, regions: [camera(side, 0.5, 'speaker'), read('slides', slides)] },
      ...[2, 3].map((count) => ({
        name: `talk, ${kind} slides, ${count} people beside`,
        regions: [
          ...Array.from({ length: count }, (_, n) =>
            camera({ x: 1440, y: 60 + n * 330, width: 440, height: 300 }, [0.5, 0.35, 0.6][n], 'speaker'),
          ),
          read('slides', slides),
        ],
      })),
      { name: `talk, ${kind} slides, speaker inset`, regions: [camera(inset, 0.5, 'speaker'), read('slides', whole)] },
      {
        name: `talk, ${kind} slides, speaker below`,
        regions: [
          camera({ x: 760, y: 800, width: 400, height: 260 }, 0.5, 'speaker'),
          read('slides', { x: 560, y: 20, width: Math.round(740 * proportion) > 1340 ? 1340 : 990, height: 740 }),
        ],
      },
      {
        name: `board beside a desk, ${kind}`,
        regions: [
          camera({ x: 0, y: 0, width: 700, height: 1080 }, 0.3, 'speaker'),
          read('slides', { x: 760, y: 120, width: 1100, height: Math.round(1100 / proportion) }),
        ],
      },
    )
  }
  return all.map((scene) => ({ frame: FULL, ...scene }))
}

/** Tiles of a call in rows, with a gap; heads are off the middle here and there. */
function tiles(count, columns, gap, tagged) {
  const rows = Math.ceil(count / columns)
  const width = Math.floor((1920 - gap * (columns + 1)) / columns)
  const height = Math.min(Math.floor((1080 - gap * (rows + 1)) / rows), Math.round((width * 9) / 16))
  const top = Math.floor((1080 - rows * height - (rows - 1) * gap) / 2)
  return Array.from({ length: count }, (_, n) => {
    const bounds = {
      x: gap + (n % columns) * (width + gap),
      y: top + Math.floor(n / columns) * (height + gap),
      width,
      height,
    }
    const tile = camera(bounds, [0.5, 0.3, 0.7][n % 3], 'speaker')
    return tagged ? { ...tile, bounds: { ...bounds, height: bounds.height - 40 } } : tile
  })
}

function calls() {
  return [2, 3, 4, 5, 6, 9].flatMap((count) =>
    [
      ['plain', 0, false],
      ['with black between', 24, false],
      ['with name tags', 8, true],
    ].map(([kind, gap, tagged]) => ({
      name: `call of ${count}, ${kind}`,
      frame: FULL,
      regions: tiles(count, count <= 2 ? 2 : Math.ceil(Math.sqrt(count)), gap, tagged),
    })),
  )
}

function cameras() {
  const left = { x: 0, y: 0, width: 960, height: 1080 }
  const right = { ...left, x: 960 }
  const wide = { x: 0, y: 0, width: 1920, height: 1080 }
  const tall = { width: 1080, height: 1920 }
  const whole = { x: 0, y: 0, width: 1080, height: 1920 }
  return [
    ...[0.3, 0.5, 0.7].map((across) => ({
      name: `two cameras side by side, heads at ${across}`,
      frame: FULL,
      regions: [camera(left, across, 'speaker'), camera(right, 1 - across, 'speaker')],
    })),
    ...[0.15, 0.4, 0.5, 0.85].map((across) => ({
      name: `one camera, head at ${across}`,
      frame: FULL,
      regions: [camera(wide, across, 'speaker')],
    })),
    ...[0.2, 0.5, 0.8].map((across) => ({
      name: `a phone held upright, head at ${across}`,
      frame: tall,
      regions: [{ ...camera(whole, across), faces: [headIn(whole, across, 0.22)] }],
    })),
  ]
}

function withoutFaces() {
  return [
    { name: 'a landscape', frame: FULL, regions: [] },
    { name: 'a game alone', frame: FULL, regions: [game({ x: 0, y: 0, width: 1920, height: 1080 })] },
    {
      name: 'a game with a score',
      frame: FULL,
      regions: [
        game({ x: 0, y: 0, width: 1920, height: 1080 }),
        read('hud', { x: 700, y: 20, width: 520, height: 80 }),
      ],
    },
    { name: 'slides alone', frame: FULL, regions: [read('slides', { x: 0, y: 0, width: 1920, height: 1080 })] },
    { name: 'slides alone, 4:3', frame: FULL, regions: [read('slides', { x: 240, y: 0, width: 1440, height: 1080 })] },
  ]
}

/** Shots of a sequence that was edited: the subject is elsewhere in each. */
function shots() {
  return [0.05, 0.25, 0.5, 0.75, 0.95].flatMap((across) =>
    [0.3, 0.6].map((share) => {
      const whole = { x: 0, y: 0, ...FULL }
      return {
        name: `a shot, subject at ${across}, ${share} high`,
        frame: FULL,
        regions: [{ role: 'face', bounds: whole, keep: null, faces: [headIn(whole, across, share)] }],
      }
    }),
  )
}

/** All of them, by family. */
export const FAMILIES = {
  streams,
  'streams with extras': streamsWithExtras,
  talks,
  calls,
  cameras,
  'without faces': withoutFaces,
  shots,
}

export const arrangementScenes = () => Object.values(FAMILIES).flatMap((family) => family())
