// Starting layouts over scenes, in five shapes, with nothing corrected by hand: which results cut, hide or double what
// must be seen, enlarge a picture beyond reason, or put words where they must not be? Judged from the composition that
// is drawn, by arithmetic of its own.
import { readFileSync } from 'node:fs'
import { arrangementScenes, FAMILIES } from './arrangementScenes.mjs'
import { drawSheets } from './arrangementSheet.mjs'
import { core } from './core.mjs'

/** What must be seen whole may lose so much of its area. */
const MAX_LOST = 0.02
/** Less than this of something is not a part of it that is shown. */
const MIN_SHOWN = 0.1
/** A head of which so much is seen in two places is there twice. */
const TWICE = 0.5
/** Px of the output for one px of the recording. */
const MAX_ENLARGED = 3
/** Points a side at which it is looked whether a place is seen. */
const GRID = 40
/** Words may come so near, px. */
const SLACK = 4

export const SHAPES = [
  { id: 'tall', width: 1080, height: 1920 },
  { id: 'portrait', width: 1080, height: 1350 },
  { id: 'square', width: 1080, height: 1080 },
  { id: 'wide', width: 1920, height: 1080 },
  { id: 'odd', width: 540, height: 626 },
]
const TITLES = [
  'Last gate, no lift',
  'Nobody thought that there was any lift left over the ridge at this hour of the day',
]
const CAPTION = 'And that is the last gate of the day'

/** Width of letters that is right to a tenth for the fonts that ship. */
const measure = (text, { size }) => [...text].reduce((sum, c) => sum + (/[ilI.,' ]/.test(c) ? 0.28 : 0.56), 0) * size

const overlap = (a, b) =>
  Math.max(0, Math.min(a.x + a.width, b.x + b.width) - Math.max(a.x, b.x)) *
  Math.max(0, Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y))

const isInside = (r, x, y) => x >= r.x && x < r.x + r.width && y >= r.y && y < r.y + r.height

/** Where a point of the recording lies on the canvas, as a picture step shows it. */
function pointOn({ crop, dest, orientation: { turn, flip } }, x, y) {
  let [u, v] = [(x - crop.x) / crop.width, (y - crop.y) / crop.height]
  if (flip) u = 1 - u
  for (let n = 0; n < turn; n++) [u, v] = [1 - v, u]
  return [dest.x + u * dest.width, dest.y + v * dest.height]
}

/** Whether a point of the canvas lies inside what a picture step fills: rounded corners and ellipses fill less. */
function fills({ dest, outline }, x, y) {
  if (!isInside(dest, x, y)) return false
  const [rx, ry] = [outline?.radiusX ?? 0, outline?.radiusY ?? 0]
  if (rx === 0 || ry === 0) return true
  const dx = Math.max(0, dest.x + rx - x, x - (dest.x + dest.width - rx)) / rx
  const dy = Math.max(0, dest.y + ry - y, y - (dest.y + dest.height - ry)) / ry
  return dx * dx + dy * dy <= 1
}

/** The share of a place of the recording that the `k`th picture shows and no later one hides, and where that lies. */
function shownBy(pictures, k, place) {
  const step = pictures[k]
  let seen = 0
  const at = { x0: Infinity, y0: Infinity, x1: -Infinity, y1: -Infinity }
  for (let i = 0; i < GRID; i++)
    for (let j = 0; j < GRID; j++) {
      const px = place.x + ((i + 0.5) / GRID) * place.width
      const py = place.y + ((j + 0.5) / GRID) * place.height
      if (!isInside(step.crop, px, py)) continue
      const [x, y] = pointOn(step, px, py)
      if (!fills(step, x, y) || pictures.slice(k + 1).some((later) => fills(later, x, y))) continue
      seen++
      at.x0 = Math.min(at.x0, x)
      at.y0 = Math.min(at.y0, y)
      at.x1 = Math.max(at.x1, x)
      at.y1 = Math.max(at.y1, y)
    }
  return {
    share: seen / GRID ** 2,
    rect: seen > 0 ? { x: at.x0, y: at.y0, width: at.x1 - at.x0, height: at.y1 - at.y0 } : null,
  }
}

/** Roles of which all must be seen, whether a person says so or not. */
const READ = ['slides', 'hud', 'chat', 'logo']

/** The least that holds both. */
const around = (a, b) => {
  const [x, y] = [Math.min(a.x, b.x), Math.min(a.y, b.y)]
  return {
    x,
    y,
    width: Math.max(a.x + a.width, b.x + b.width) - x,
    height: Math.max(a.y + a.height, b.y + b.height) - y,
  }
}

const shareOf = ({ x, y, width, height }, frame) => ({
  x: x / frame.width,
  y: y / frame.height,
  width: width / frame.width,
  height: height / frame.height,
})

/** What is wrong with a composition of a scene. */
export function faultsOf({ size, steps }, { frame, regions }, setText) {
  const pictures = steps.filter((s) => s.kind === 'picture')
  const faults = new Set()
  const kept = []
  const faces = []
  for (const { role, keep, faces: heads = [] } of regions) {
    if (keep) {
      const shown = pictures.map((_, k) => shownBy(pictures, k, keep))
      if (shown.some(({ share }) => share >= MIN_SHOWN && share < 1 - MAX_LOST)) faults.add(`cuts ${role}`)
      kept.push(...shown.filter(({ share }) => share >= MIN_SHOWN).map(({ rect }) => rect))
    }
    for (const head of heads) {
      const shown = pictures.map((_, k) => shownBy(pictures, k, head))
      if (shown.some(({ share }) => share >= MIN_SHOWN && share < 1 - MAX_LOST)) faults.add(`cuts a face of ${role}`)
      if (shown.filter(({ share }) => share >= TWICE).length > 1) faults.add(`shows a face of ${role} twice`)
      faces.push(...shown.filter(({ share }) => share >= MIN_SHOWN).map(({ rect }) => rect))
    }
  }
  for (const { crop, dest, orientation } of pictures) {
    const across = orientation.turn % 2 === 1 ? dest.height : dest.width
    if (across / crop.width > MAX_ENLARGED && crop.width < frame.width) faults.add('enlarges a picture over 3 times')
  }
  const over = steps.flatMap((s) => {
    if (s.kind === 'text') {
      const set = setText(s.text, s.style, s.area, Math.min(size.width, size.height), measure)
      if (!set) throw new Error(`“${s.text}” cannot be set`)
      return [{ name: 'words', rect: set.extent }]
    }
    if (s.kind === 'level') return [{ name: 'the sound figure', rect: s.rect }]
    return []
  })
  over.forEach(({ name, rect }, i) => {
    const near = {
      x: rect.x + SLACK,
      y: rect.y + SLACK,
      width: rect.width - 2 * SLACK,
      height: rect.height - 2 * SLACK,
    }
    if (faces.some((face) => overlap(face, near) > 0)) faults.add(`${name} on a face`)
    if (kept.some((read) => overlap(read, near) > 0)) faults.add(`${name} on read text`)
    if (over.slice(0, i).some((other) => overlap(other.rect, near) > 0)) faults.add(`${name} on other words`)
  })
  return [...faults]
}

/** Edits of scenes in each starting layout, one for each title. */
export async function editsOf(scenes, only) {
  const { arrangeFor, STARTING_LAYOUTS } = await core('layout/startingLayouts')
  const { edit: editSchema } = await core('model/edit')
  const { TITLE_STYLES } = await core('words/textStyles')
  const { newMark } = await core('model/pictureMark')
  const base = { schemaVersion: 1, createdAt: '2026-11-30T08:00:00.000Z', updatedAt: '2026-11-30T08:00:00.000Z' }
  const editOf = ({ frame, regions }, starting, title) => {
    let ids = 0
    const id = () => `id-${ids++}`
    return editSchema.parse({
      highlight: {
        ...base,
        id: 'h',
        name: 'A scene',
        shapes: SHAPES,
        passages: [{ id: 'p', recordingId: 'r', inMicros: 0, outMicros: 8_000_000, setupId: 's', layoutId: 'l' }],
        words: {
          cues: [
            {
              id: 'c',
              recordingId: 'r',
              fromMicros: 0,
              toMicros: 8_000_000,
              text: CAPTION,
              words: [],
              speakerId: null,
            },
          ],
          speakers: [],
          titles: [{ id: 't', text: title, fromMicros: null, toMicros: null, style: TITLE_STYLES[0].style }],
        },
        marks: [{ ...newMark('m', { kind: 'handle' }), text: 'heron ridge' }, newMark('n', { kind: 'level' })],
      },
      setups: [
        {
          ...base,
          id: 's',
          name: 'A scene',
          ownedBy: 'h',
          regions: regions.map(({ role, bounds, keep, faces = [] }, n) => ({
            id: `region-${n}`,
            role,
            name: role,
            bounds: shareOf(bounds, frame),
            // What the application measures by itself where somebody is seen, and what a person marks.
            ...(faces.length > 0 && { head: shareOf(faces.reduce(around), frame) }),
            ...(keep && !READ.includes(role) && { focus: shareOf(keep, frame) }),
          })),
        },
      ],
      layouts: [
        {
          ...base,
          id: 'l',
          name: starting.name,
          ownedBy: 'h',
          adapts: true,
          arrangement: arrangeFor(
            starting,
            regions.map((r) => r.role),
            id,
            id,
          ),
        },
      ],
      recordings: [
        {
          ...base,
          id: 'r',
          name: 'A recording',
          fileName: 'a.mp4',
          sizeBytes: 1,
          durationMicros: 60_000_000,
          recordedAt: base.createdAt,
          originMicros: 0,
          video: {
            ...frame,
            rotation: 0,
            frameRate: { num: 60, den: 1 },
            variableFrameRate: false,
            firstFrameMicros: 0,
            codec: 'H.264',
          },
          sound: { codec: 'AAC', sampleRate: 48000, channels: 2, startMicros: 0 },
          source: 'kept',
        },
      ],
    })
  }
  return scenes.flatMap((scene) =>
    STARTING_LAYOUTS.filter(({ id }) => !only || only.includes(id)).map((starting) => ({
      scene,
      layoutId: starting.id,
      edits: TITLES.map((title) => editOf(scene, starting, title)),
    })),
  )
}

/** Every result of every scene: `{ scene, layout, shape, rank, offered, clean, faults }`. */
export async function resultsOf(scenes) {
  const { compose } = await core('compose/compose')
  const { timeMapOf } = await core('time/timeMap')
  const { setText } = await core('words/setText')
  const { suitedLayouts } = await core('compose/suitedLayouts')
  const suitedTo = new Map()
  const rankOf = (scene, layoutId, edit) => {
    const [passage] = edit.highlight.passages
    if (!suitedTo.has(scene))
      suitedTo.set(scene, suitedLayouts(edit, passage, { panel: (role, n) => `${role} ${n}`, inset: () => 'i' }))
    const rank = suitedTo.get(scene).findIndex(({ starting }) => starting.id === layoutId)
    return { rank: rank + 1, offered: suitedTo.get(scene)[rank].faults.length === 0 }
  }
  return (await editsOf(scenes)).flatMap(({ scene, layoutId, edits }) => {
    const place = rankOf(scene, layoutId, edits.at(-1))
    return SHAPES.map((shape) => {
      const faultsWith = (adapts) =>
        new Set(
          edits.flatMap((edit) => {
            const made = { ...edit, layouts: edit.layouts.map((l) => ({ ...l, adapts })) }
            const composition = compose(made, timeMapOf(edit.highlight), shape, 4_000_000)
            return composition ? faultsOf(composition, scene, setText) : ['nothing is drawn']
          }),
        )
      const faults = faultsWith(true)
      return {
        scene: scene.name,
        layout: layoutId,
        shape: shape.id,
        ...place,
        clean: faults.size === 0,
        faults: [...faults],
        // What the same layout comes to when it is carried over by rule.
        faultsByRule: faultsWith(false).size,
      }
    })
  })
}

/** What the layout that is offered first makes of a scene, in each shape, with the longest title. */
async function firstCompositions() {
  const { compose } = await core('compose/compose')
  const { timeMapOf } = await core('time/timeMap')
  const { setText } = await core('words/setText')
  const { suitedLayouts } = await core('compose/suitedLayouts')
  return async (scene) => {
    const [{ edits }] = await editsOf([scene], ['face-over-game'])
    const edit = edits.at(-1)
    const [passage] = edit.highlight.passages
    const [best] = suitedLayouts(edit, passage, { panel: (role, n) => `${role} ${n}`, inset: () => 'inset' })
    const layouts = edit.layouts.map((l) => ({ ...l, arrangement: best.arrangement }))
    return SHAPES.map((shape) => {
      const { size, steps } = compose({ ...edit, layouts }, timeMapOf(edit.highlight), shape, 4_000_000)
      const texts = steps.flatMap((s) => {
        const set = s.kind === 'text' && setText(s.text, s.style, s.area, Math.min(size.width, size.height), measure)
        if (!set) return []
        const { face, blocks, lines, text } = set
        const drawn = lines.map(({ from, to, ...place }) => ({ text: text.slice(from, to), ...place }))
        const { colour, outline, block } = s.style
        return [{ face, blocks, lines: drawn, colour, outline: outline?.colour, block: block?.colour }]
      })
      return { layout: best.starting.name, size, steps: steps.filter((s) => s.kind !== 'text'), texts }
    })
  }
}

/** `options.scenes`: a file of scenes from outside; `sheet`: a folder for pictures to look at; `options.asJson`: one line for each result instead of figures. */
export async function arrangements(_page, { scenes: file, sheet, asJson } = {}) {
  if (sheet) {
    const families = file
      ? [['scenes', JSON.parse(readFileSync(file, 'utf8'))]]
      : Object.entries(FAMILIES).map(([name, family]) => [name, family()])
    for (const made of await drawSheets(sheet, families, await firstCompositions())) process.stdout.write(`${made}\n`)
    return []
  }
  const scenes = file ? JSON.parse(readFileSync(file, 'utf8')) : arrangementScenes()
  const results = await resultsOf(scenes)
  if (asJson) {
    for (const { scene, layout, shape, rank, offered, clean, faults } of results)
      process.stdout.write(`${JSON.stringify({ scene, layout, shape, rank, offered, clean, faults })}\n`)
    return []
  }
  const offered = results.filter((r) => r.offered)
  const percent = (part, all) => Math.round((1000 * part) / Math.max(1, all)) / 10
  const first = scenes.filter(({ name }) =>
    offered.filter((r) => r.scene === name && r.rank === 1).every((r) => r.clean),
  )
  const clean = offered.filter((r) => r.clean).length
  const counts = new Map()
  for (const fault of offered.flatMap((r) => r.faults)) counts.set(fault, (counts.get(fault) ?? 0) + 1)
  const worst = [...counts].sort((a, b) => b[1] - a[1]).slice(0, 6)
  return [
    {
      figure: percent(first.length, scenes.length),
      unit: `% of ${scenes.length} scenes whose first layout is clean in all shapes`,
      bar: 100,
      met: first.length === scenes.length,
    },
    {
      figure: percent(clean, offered.length),
      unit: `% of ${offered.length} offered results are clean`,
      bar: 97,
      met: clean >= 0.97 * offered.length,
      detail: worst.map(([fault, n]) => `${n} ${fault}`).join('; '),
    },
    {
      figure: results.filter((r) => r.faults.length > r.faultsByRule).length,
      unit: `of ${results.length} results, offered or not, have more kinds of faults than by rule`,
      bar: 0,
      met: results.every((r) => r.faults.length <= r.faultsByRule),
    },
  ]
}
