import type { Edit } from '../../model/edit'
import type { Direction, Easing, Join } from '../../model/join'
import type { Shape } from '../../model/shape'
import type { FrameRate } from '../../time/frameRate'
import type { Micros } from '../../time/micros'
import { timeMapOf, type PlacedJoin, type PlacedPassage, type Run } from '../../time/timeMap'
import { colourOf, Graph, secs } from './graph'
import { runChain, type Drawing } from './pictureChains'
import { soundChain } from './soundChains'

/**
 * A shell script that has ffmpeg (5.1 or later) make a highlight in one shape: the same cuts, speeds, panels,
 * backdrops, joins and sound, from the recordings in a folder. What filters cannot say is told in the script itself.
 * `sh script.sh [media folder] [output file]`.
 */
export function ffmpegScript(edit: Edit, shape: Shape, rate: FrameRate): string {
  const map = timeMapOf(edit.highlight)
  const notes = new Set<string>()
  const drawing: Drawing = { graph: new Graph(), edit, map, shape, rate, notes }
  const picture = pictureChain(drawing)
  const sound = soundChain(drawing.graph, edit, map, notes)
  const { inputs, chains } = drawing.graph
  const comment = (text: string) => `# ${text.replace(/[\r\n]+/g, ' ')}`
  return `${[
    '#!/bin/sh',
    comment(
      `“${edit.highlight.name}”, ${shape.id} ${shape.width} × ${shape.height}, made by ffmpeg from the recordings it was cut from.`,
    ),
    comment('Usage: sh script.sh [folder of the recordings] [file to make]'),
    ...[...notes].map(comment),
    'set -e',
    'MEDIA=${1:-.}',
    'OUT=${2:-out.mp4}',
    "GRAPH=$(cat <<'END'",
    chains.join(';\n'),
    'END',
    ')',
    [
      'ffmpeg -hide_banner -y',
      ...inputs.map((i) => `  ${i}`),
      `  -filter_complex "$GRAPH" -map "[${picture}]"${sound ? ` -map "[${sound}]"` : ''}`,
      `  -r ${rate.num}/${rate.den} -c:v libx264 -crf 18 -preset medium -pix_fmt yuv420p -colorspace bt709 -color_primaries bt709 -color_trc bt709 -color_range tv${sound ? ' -c:a aac -b:a 160k' : ''} -t ${secs(map.lengthMicros)} -movflags +faststart "file:$OUT"`,
    ].join(' \\\n'),
  ].join('\n')}\n`
}

function pictureChain(drawing: Drawing): string {
  const { graph, map, shape, rate } = drawing
  const streams = map.passages.filter((p) => p.endMicros > p.startMicros).map((placed) => passageChain(drawing, placed))
  if (map.joins.length === 0)
    return streams.length === 1
      ? (streams[0]?.label as string)
      : graph.chain(
          streams.map((s) => s.label),
          [`concat=n=${streams.length}:v=1:a=0`],
        )
  let base = graph.chain(
    [],
    [
      `color=c=black:s=${shape.width}x${shape.height}:r=${rate.num}/${rate.den}:d=${secs(map.lengthMicros)}`,
      'format=yuv420p',
    ],
  )
  for (const { label, placed, fromMicros, toMicros } of streams) {
    const before = map.joins.find((j) => j.index === placed.index - 1)
    const after = map.joins.find((j) => j.index === placed.index)
    if ([before, after].some((j) => j?.join.kind === 'push' && j.join.within === 'panel'))
      drawing.notes.add('Panels that are pushed by themselves: here the whole picture moves.')
    const placedStream = graph.chain([label], [`setpts=PTS-STARTPTS+${secs(fromMicros)}/TB`, ...fadesOf(before, after)])
    const [x, y] = [offset('x', before, after, shape), offset('y', before, after, shape)]
    base = graph.chain(
      [base, placedStream],
      [
        `overlay=x='${x}':y='${y}':eof_action=pass:enable='gte(t,${secs(shownFrom(fromMicros, before))})*lt(t,${secs(toMicros)})'`,
        'format=yuv420p',
      ],
    )
  }
  return base
}

/** A passage as a stream, with what its joins show of it beyond its own ends. */
function passageChain(
  drawing: Drawing,
  placed: PlacedPassage,
): { label: string; placed: PlacedPassage; fromMicros: Micros; toMicros: Micros } {
  const { map, graph } = drawing
  const before = map.joins.find((j) => j.index === placed.index - 1)
  const after = map.joins.find((j) => j.index === placed.index)
  const runs = placed.runs.map((run, i) =>
    widened(
      run,
      placed,
      i === 0 ? before?.fromMicros : undefined,
      i === placed.runs.length - 1 ? after?.toMicros : undefined,
    ),
  )
  const labels = runs.map((run) => runChain(drawing, placed, run))
  const label = labels.length === 1 ? (labels[0] as string) : graph.chain(labels, [`concat=n=${labels.length}:v=1:a=0`])
  return {
    label,
    placed,
    fromMicros: runs[0]?.startMicros ?? placed.startMicros,
    toMicros: runs.at(-1)?.endMicros ?? placed.endMicros,
  }
}

function widened(run: Run, { passage }: PlacedPassage, from: Micros | undefined, to: Micros | undefined): Run {
  const startMicros = Math.min(run.startMicros, from ?? run.startMicros)
  const endMicros = Math.max(run.endMicros, to ?? run.endMicros)
  const through = (t: Micros) => Math.round((t * passage.speedPercent) / 100)
  return {
    startMicros,
    endMicros,
    inMicros: run.inMicros - through(run.startMicros - startMicros),
    outMicros: run.outMicros + through(endMicros - run.endMicros),
  }
}

/** A dip shows the next passage only from its middle on. */
const shownFrom = (fromMicros: Micros, before: PlacedJoin | undefined) =>
  before?.join.kind === 'dip' ? (before.fromMicros + before.toMicros) / 2 : fromMicros

/** What a passage fades in by and out by. Pushes and slides move it: see {@link offset}. */
function fadesOf(before: PlacedJoin | undefined, after: PlacedJoin | undefined): string[] {
  return [...(before ? fadeIn(before) : []), ...(after ? fadeOut(after) : [])]
}

function fadeIn({ join, fromMicros, toMicros }: PlacedJoin): string[] {
  const half = (toMicros - fromMicros) / 2
  switch (join.kind) {
    case 'push':
    case 'slide':
      return []
    case 'dissolve':
      return ['format=yuva420p', `fade=t=in:st=${secs(fromMicros)}:d=${secs(toMicros - fromMicros)}:alpha=1`]
    case 'dip':
      return [`fade=t=in:st=${secs(fromMicros + half)}:d=${secs(half)}:c=${colourOf(join.colour)}`]
  }
}

function fadeOut({ join, fromMicros, toMicros }: PlacedJoin): string[] {
  switch (join.kind) {
    case 'push':
    case 'slide':
    case 'dissolve':
      return []
    case 'dip':
      return [`fade=t=out:st=${secs(fromMicros)}:d=${secs((toMicros - fromMicros) / 2)}:c=${colourOf(join.colour)}`]
  }
}

const AXIS: Record<Direction, { axis: 'x' | 'y'; sign: number }> = {
  up: { axis: 'y', sign: -1 },
  down: { axis: 'y', sign: 1 },
  left: { axis: 'x', sign: -1 },
  right: { axis: 'x', sign: 1 },
}

/** How far a passage is moved on an axis at a time: in by the join before it, out by a push after it. */
function offset(
  axis: 'x' | 'y',
  before: PlacedJoin | undefined,
  after: PlacedJoin | undefined,
  { width, height }: Shape,
): string {
  const length = axis === 'x' ? width : height
  const terms: string[] = []
  const moves = (join: Join | undefined): join is Extract<Join, { kind: 'push' | 'slide' }> =>
    (join?.kind === 'push' || join?.kind === 'slide') && AXIS[join.direction].axis === axis
  if (before && moves(before.join))
    terms.push(`${-AXIS[before.join.direction].sign * length}*(1-${eased(before, before.join.easing)})`)
  if (after && moves(after.join) && after.join.kind === 'push')
    terms.push(`${AXIS[after.join.direction].sign * length}*${eased(after, after.join.easing)}`)
  return terms.join('+') || '0'
}

function eased({ fromMicros, toMicros }: PlacedJoin, easing: Easing): string {
  const p = `clip((t-${secs(fromMicros)})/${secs(toMicros - fromMicros)},0,1)`
  switch (easing) {
    case 'even':
      return p
    case 'soft':
      return `${p}*${p}*(3-2*${p})`
    case 'late':
      return `${p}*${p}*${p}`
  }
}
