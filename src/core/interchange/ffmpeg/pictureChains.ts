import { compose } from '../../compose/compose'
import { footageOf, type FootageStep, type PictureStep, type Step } from '../../compose/composition'
import { pictureSpeed } from '../../compose/feeds'
import type { Size } from '../../geometry/rect'
import { recordingOf, type Edit } from '../../model/edit'
import type { Shape } from '../../model/shape'
import type { FrameRate } from '../../time/frameRate'
import type { Micros } from '../../time/micros'
import type { PlacedPassage, Run, TimeMap } from '../../time/timeMap'
import { colourOf, quoted, secs, type Graph } from './graph'

/** Where crops move, they are looked at so often; between, they go straight. */
const SAMPLED_EVERY = 100_000
const MAX_SAMPLES = 400

/** Input seeking drops what begins before; a frame that begins at the cut point itself must not be lost to rounding. */
const SEEK_EARLY_MICROS = 2_000

/** As media/draw/drawBlurred draws it. */
const BLUR_SIDE = 240

export interface Drawing {
  graph: Graph
  edit: Edit
  map: TimeMap
  shape: Shape
  rate: FrameRate
  /** What could not be said in filters, for whoever reads the script. */
  notes: Set<string>
}

/** A run of a passage as a stream of whole pictures; `run` may reach into joins, beyond the passage's own end. */
export function runChain(drawing: Drawing, placed: PlacedPassage, run: Run): string {
  const { graph, edit, shape, rate } = drawing
  const length = run.endMicros - run.startMicros
  const times = sampleTimes(drawing.map, placed, run)
  const samples = times.map((t) => compose(edit, drawing.map, shape, t)?.steps ?? [])
  const steps = (samples[0] ?? []).filter((s) => told(s, drawing.notes))
  const last = times.length > 1 ? { steps: samples.at(-1) ?? [], at: times.at(-1) ?? 0 } : null
  const streams = footageStreams(drawing, placed, steps, run, times[0] ?? run.startMicros, last)
  const fps = `${rate.num}/${rate.den}`
  const filled = (colour: string) =>
    graph.chain([], [`color=c=${colour}:s=${shape.width}x${shape.height}:r=${fps}:d=${secs(length)}`, 'format=yuv420p'])
  // Every output of a graph has to be used: what lies behind is made when something lies on it.
  let base: string | null = null
  for (const step of steps) {
    const stream = 'feed' in step ? streams.get(step) : undefined
    if (step.kind === 'colour') base ??= filled(colourOf(step.colour))
    else if (step.kind === 'gradient') base ??= graph.chain([], [gradient(step, shape, fps, length)])
    else if (step.kind === 'tint')
      base = graph.chain([base ?? filled('black')], [`drawbox=color=${colourOf(step.colour)}@${step.opacity}:t=fill`])
    else if (step.kind === 'blur' && stream) base ??= graph.chain([stream], blurred(step, shape))
    else if (step.kind === 'picture' && stream)
      base = onto(drawing, base ?? filled('black'), stream, step, movement(step, samples, times, run, drawing.notes))
  }
  return base ?? filled('black')
}

/** Which steps are said in filters; the rest is noted. */
function told(step: Step, notes: Set<string>): boolean {
  switch (step.kind) {
    case 'colour':
    case 'gradient':
    case 'tint':
    case 'blur':
    case 'picture':
      return true
    case 'text':
      notes.add('Titles and captions are left out; save captions as SubRip beside it.')
      return false
    case 'image':
    case 'level':
    case 'block':
      notes.add('Pictures, figures and end cards over or behind the footage are left out.')
      return false
    case 'layer':
      // Joins alone lay one picture over another; they are written as overlays of whole passages.
      return false
  }
}

/** Output times of a run at which it is alone on the screen, as far as it ever is. */
function sampleTimes(map: TimeMap, { index, startMicros, endMicros }: PlacedPassage, run: Run): Micros[] {
  const before = map.joins.find((j) => j.index === index - 1)
  const after = map.joins.find((j) => j.index === index)
  const from = Math.max(run.startMicros, before?.toMicros ?? startMicros)
  const to = Math.min(run.endMicros, after?.fromMicros ?? endMicros)
  if (to <= from)
    return [Math.min(map.lengthMicros - 1, Math.max(0, Math.round((run.startMicros + run.endMicros) / 2)))]
  const every = Math.max(SAMPLED_EVERY, (to - from) / MAX_SAMPLES)
  return Array.from({ length: Math.ceil((to - from) / every) }, (_, i) => Math.round(from + i * every))
}

/** A stream for each step that shows something of a recording: each moment is read once. */
function footageStreams(
  { graph, edit, rate }: Drawing,
  { passage }: PlacedPassage,
  steps: readonly Step[],
  run: Run,
  at: Micros,
  later: { steps: readonly Step[]; at: Micros } | null,
): Map<FootageStep, string> {
  const footage = footageOf({ steps: [...steps] })
  const groups = new Map<string, FootageStep[]>()
  for (const step of footage) {
    const key = `${step.feed.recordingId} ${step.feed.micros}`
    groups.set(key, [...(groups.get(key) ?? []), step])
  }
  const streams = new Map<FootageStep, string>()
  for (const group of groups.values()) {
    const [first] = group
    if (!first) continue
    const recording = recordingOf(edit, first.feed.recordingId)
    const percent = percentBetween(first, at, later) ?? pictureSpeed(passage)
    // What the feed plays at the run's start: as far before the sample as the run had come.
    const start = first.feed.micros - Math.round(((at - run.startMicros) * percent) / 100)
    const length = run.endMicros - run.startMicros
    const needed = Math.round((length * percent) / 100)
    const lead = Math.max(0, -start)
    const seek = Math.max(0, recording.originMicros + start + lead - SEEK_EARLY_MICROS)
    const input = graph.input(
      `-seek_timestamp 1 -ss ${secs(seek)} -t ${secs(needed + 500_000)} -i "file:$MEDIA"/${quoted(recording.fileName)}`,
    )
    const stream = graph.chain(
      [`${input}:v`],
      [
        `setpts=(PTS-STARTPTS)*100/${percent}${lead > 0 ? `+${secs((lead * 100) / percent)}/TB` : ''}`,
        `fps=${rate.num}/${rate.den}:round=up:start_time=0`,
        `tpad=stop_mode=clone:stop_duration=${secs(length)}`,
        `trim=duration=${secs(length)}`,
        'setpts=PTS-STARTPTS',
      ],
    )
    const copies = graph.split(stream, group.length)
    group.forEach((step, i) => streams.set(step, copies[i] as string))
  }
  return streams
}

/**
 * How fast what a step shows runs through its recording, percent, by where it is at a later time; null where that
 * cannot be told.
 */
function percentBetween(
  step: FootageStep,
  at: Micros,
  later: { steps: readonly Step[]; at: Micros } | null,
): number | null {
  const there =
    later &&
    footageOf({ steps: [...later.steps] }).find(
      (s) => s.feed.lane === step.feed.lane && s.feed.recordingId === step.feed.recordingId,
    )
  const percent = later && there ? Math.round(((there.feed.micros - step.feed.micros) * 100) / (later.at - at)) : 0
  return percent > 0 ? percent : null
}

/** Where a crop is, as ffmpeg works it out for each frame. */
interface Movement {
  x: string
  y: string
}

function movement(
  step: PictureStep,
  samples: readonly Step[][],
  times: readonly Micros[],
  run: Run,
  notes: Set<string>,
): Movement {
  const crops = samples.map(
    (steps) =>
      steps.find(
        (s): s is PictureStep =>
          s.kind === 'picture' &&
          s.panelId === step.panelId &&
          s.feed.lane === step.feed.lane &&
          s.dest.x === step.dest.x &&
          s.dest.y === step.dest.y,
      )?.crop ?? step.crop,
  )
  if (crops.some((c) => Math.abs(c.width - step.crop.width) > 1 || Math.abs(c.height - step.crop.height) > 1))
    notes.add('A crop that changes its size while it moves keeps the size it begins with.')
  const along = (of: (crop: (typeof crops)[number]) => number) => {
    const values = crops.map(of)
    const [first = 0] = values
    if (values.every((v) => Math.abs(v - first) < 0.5)) return String(Math.round(first))
    const at = times.map((t) => (t - run.startMicros) / 1e6)
    const terms = values.slice(1).map((v, i) => {
      const [from, to, a, b] = [at[i] ?? 0, at[i + 1] ?? 0, values[i] ?? 0, v]
      return `gte(t,${from.toFixed(3)})*lt(t,${to.toFixed(3)})*(${a.toFixed(2)}+${((b - a) / (to - from)).toFixed(3)}*(t-${from.toFixed(3)}))`
    })
    return `'${[`lt(t,${(at[0] ?? 0).toFixed(3)})*${first.toFixed(2)}`, ...terms, `gte(t,${(at.at(-1) ?? 0).toFixed(3)})*${(values.at(-1) ?? 0).toFixed(2)}`].join('+')}'`
  }
  return { x: along((c) => c.x), y: along((c) => c.y) }
}

function onto(
  { graph, notes }: Drawing,
  base: string,
  stream: string,
  { crop, dest, orientation, opacity, outline }: PictureStep,
  { x, y }: Movement,
): string {
  const filters = [`crop=w=${Math.round(crop.width)}:h=${Math.round(crop.height)}:x=${x}:y=${y}:exact=1`]
  if (orientation.flip) filters.push('hflip')
  if (orientation.turn === 1) filters.push('transpose=clock')
  if (orientation.turn === 2) filters.push('hflip', 'vflip')
  if (orientation.turn === 3) filters.push('transpose=cclock')
  filters.push(`scale=${dest.width}:${dest.height}:flags=bicubic`, 'setsar=1')
  const masked = outline && (outline.radiusX > 0 || outline.radiusY > 0)
  if (outline?.shadow) notes.add('Shadows are left out.')
  if (masked || opacity < 1) filters.push('format=yuva420p')
  if (masked) filters.push(roundedAlpha(dest, outline.radiusX, outline.radiusY))
  if (opacity < 1) filters.push(`colorchannelmixer=aa=${opacity}`)
  const picture = graph.chain([stream], filters)
  const under = outline?.border ? withBorder(graph, base, dest, outline.border, outline) : base
  return graph.chain([under, picture], [`overlay=x=${dest.x}:y=${dest.y}:eof_action=pass`, 'format=yuv420p'])
}

/** A border as a block of colour behind the picture, a little larger than it. */
function withBorder(
  graph: Graph,
  base: string,
  dest: PictureStep['dest'],
  border: { width: number; colour: string },
  { radiusX, radiusY }: { radiusX: number; radiusY: number },
): string {
  const w = Math.round(border.width)
  const size = { width: dest.width + 2 * w, height: dest.height + 2 * w }
  const block = graph.chain(
    [],
    [
      `color=c=${colourOf(border.colour)}:s=${size.width}x${size.height}`,
      'format=yuva420p',
      ...(radiusX > 0 || radiusY > 0 ? [roundedAlpha(size, radiusX + w, radiusY + w)] : []),
    ],
  )
  return graph.chain([base, block], [`overlay=x=${dest.x - w}:y=${dest.y - w}:shortest=1`])
}

/** What lies outside rounded corners, or an ellipse, is seen through. */
function roundedAlpha({ width, height }: Size, radiusX: number, radiusY: number): string {
  const [rx, ry] = [Math.max(1, Math.round(radiusX)), Math.max(1, Math.round(radiusY))]
  const away = (at: string, length: number, r: number) => `max(max(${r}-${at}-0.5,${at}+0.5-${length - r}),0)/${r}`
  const inside = `lte(pow(${away('X', width, rx)},2)+pow(${away('Y', height, ry)},2),1)`
  return `geq=lum='lum(X,Y)':cb='cb(X,Y)':cr='cr(X,Y)':a='255*${inside}'`
}

function blurred({ crop, radius }: Extract<Step, { kind: 'blur' }>, { width, height }: Shape): string[] {
  const scale = BLUR_SIDE / Math.max(width, height)
  const small = { width: Math.max(2, Math.round(width * scale)), height: Math.max(2, Math.round(height * scale)) }
  return [
    `crop=w=${Math.round(crop.width)}:h=${Math.round(crop.height)}:x=${Math.round(crop.x)}:y=${Math.round(crop.y)}:exact=1`,
    `scale=${small.width}:${small.height}:flags=area`,
    ...(radius > 0 ? [`gblur=sigma=${(radius * scale).toFixed(3)}:steps=3`] : []),
    `scale=${width}:${height}:flags=bicubic`,
    'setsar=1',
    'format=yuv420p',
  ]
}

/** From corner to corner along its direction, as the picture is drawn. */
function gradient(
  { from, to, degrees }: Extract<Step, { kind: 'gradient' }>,
  { width, height }: Shape,
  fps: string,
  length: Micros,
): string {
  const angle = (degrees * Math.PI) / 180
  const [dx, dy] = [-Math.sin(angle), Math.cos(angle)]
  const half = (Math.abs(dx) * width + Math.abs(dy) * height) / 2
  const point = (sign: number) => [Math.round(width / 2 + sign * dx * half), Math.round(height / 2 + sign * dy * half)]
  const [x0, y0] = point(-1)
  const [x1, y1] = point(1)
  return `gradients=s=${width}x${height}:r=${fps}:d=${secs(length)}:n=2:c0=${colourOf(from)}:c1=${colourOf(to)}:x0=${x0}:y0=${y0}:x1=${x1}:y1=${y1}:speed=0.00001,format=yuv420p`
}
