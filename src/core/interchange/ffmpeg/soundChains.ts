import type { Edit } from '../../model/edit'
import { soundPlan, type SoundSegment } from '../../sound/soundPlan'
import type { TimeMap } from '../../time/timeMap'
import { quoted, secs, type Graph } from './graph'

const RATE = 48_000

/** Everything that is heard of a highlight as one stream; null when nothing is. */
export function soundChain(graph: Graph, edit: Edit, map: TimeMap, notes: Set<string>): string | null {
  const plan = soundPlan(edit, map)
  if (plan.length === 0) return null
  if (plan.some((s) => s.duckDb > 0)) notes.add('Music does not go down under speech.')
  const segments = plan.flatMap((segment) => segmentChain(graph, edit, segment) ?? [])
  const mixed =
    segments.length === 1
      ? (segments[0] as string)
      : graph.chain(segments, [`amix=inputs=${segments.length}:normalize=0:duration=longest`])
  const { limitDb } = edit.highlight
  return graph.chain(
    [mixed],
    [
      'apad',
      `atrim=duration=${secs(map.lengthMicros)}`,
      ...(limitDb === null ? [] : [`alimiter=limit=${(10 ** (limitDb / 20)).toFixed(4)}:level=0`]),
    ],
  )
}

function segmentChain(
  graph: Graph,
  edit: Edit,
  { source, fromMicros, speedPercent, startMicros, endMicros, gain, fades }: SoundSegment,
): string | null {
  const file =
    source.kind === 'recording'
      ? edit.recordings.find((r) => r.id === source.id)
      : edit.soundFiles.find((f) => f.id === source.id)
  if (!file) return null
  const length = endMicros - startMicros
  const late = Math.round((Math.max(0, -fromMicros) * 100) / speedPercent)
  const from = Math.max(0, fromMicros)
  const input = graph.input(
    `-seek_timestamp 1 -ss ${secs(Math.max(0, file.originMicros + from))} -t ${secs((length * speedPercent) / 100 + 100_000)} -i "file:$MEDIA"/${quoted(file.fileName)}`,
  )
  const delay = Math.round(((startMicros + late) * RATE) / 1e6)
  return graph.chain(
    [`${input}:a`],
    [
      `aresample=${RATE}:async=1`,
      'aformat=sample_fmts=fltp:channel_layouts=stereo',
      'asetpts=PTS-STARTPTS',
      ...tempo(speedPercent),
      `atrim=duration=${secs(length - late)}`,
      `volume=${gain.toFixed(5)}`,
      `adelay=delays=${delay}S:all=1`,
      ...fades.flatMap(({ kind, fromMicros: at, toMicros, curve }) =>
        toMicros <= Math.max(0, at)
          ? []
          : [
              `afade=t=${kind}:st=${secs(Math.max(0, at))}:d=${secs(toMicros - Math.max(0, at))}:curve=${curve === 'power' ? 'qsin' : 'tri'}`,
            ],
      ),
    ],
  )
}

/** Speeds below half go in two steps: one takes no less. */
function tempo(speedPercent: number): string[] {
  if (speedPercent === 100) return []
  return speedPercent >= 50 ? [`atempo=${speedPercent / 100}`] : ['atempo=0.5', `atempo=${speedPercent / 50}`]
}
