import { z } from 'zod'
import type { Highlight } from '../model/highlight'
import type { Outlet } from '../model/outlet'
import type { Loudness } from '../sound/loudness'
import { toSeconds } from '../time/micros'
import { outputLength } from '../time/timeMap'
import type { Finding } from './finding'

const span = z.object({ fromSeconds: z.number(), toSeconds: z.number() })

/** What was found in a highlight, to be kept or sent: output seconds; `fault` holds the numbers, `words` says them. */
export const findingsReport = z.object({
  kind: z.literal('brimble-findings'),
  version: z.literal(1),
  madeAt: z.iso.datetime(),
  highlight: z.object({
    name: z.string(),
    lengthSeconds: z.number(),
    shapes: z.array(z.object({ id: z.string(), width: z.number(), height: z.number() })),
  }),
  outlet: z.string().nullable(),
  /** LUFS and dBTP; null when nothing is heard or it has not been listened to. */
  loudness: z.object({ lufs: z.number(), peakDb: z.number() }).nullable(),
  findings: z.array(
    span.extend({
      severity: z.enum(['stop', 'warn', 'note']),
      words: z.string(),
      fault: z.looseObject({ kind: z.string() }),
      /** Null: in every shape alike. */
      shape: z.string().nullable(),
      /** Where it is so in parts only. */
      times: z.array(span),
      /** Whether it was said to be meant so. */
      accepted: z.boolean(),
    }),
  ),
})
export type FindingsReport = z.infer<typeof findingsReport>

interface Looked {
  findings: readonly Finding[]
  accepted: readonly Finding[]
  loudness: Loudness | null
}

/** Puts together what was found. `now`: ISO 8601, UTC; `wordsOf`: a finding in words. */
export function reportOf(
  highlight: Highlight,
  outlet: Outlet | null,
  { findings, accepted, loudness }: Looked,
  now: string,
  wordsOf: (finding: Finding) => string,
): FindingsReport {
  const inSeconds = ({ fromMicros, toMicros }: Pick<Finding, 'fromMicros' | 'toMicros'>) => ({
    fromSeconds: toSeconds(fromMicros),
    toSeconds: toSeconds(toMicros),
  })
  const line =
    (isAccepted: boolean) =>
    (finding: Finding): FindingsReport['findings'][number] => ({
      severity: finding.severity,
      words: wordsOf(finding),
      fault: finding.fault,
      shape: finding.shapeId,
      ...inSeconds(finding),
      times: (finding.times ?? []).map(inSeconds),
      accepted: isAccepted,
    })
  return {
    kind: 'brimble-findings',
    version: 1,
    madeAt: now,
    highlight: {
      name: highlight.name,
      lengthSeconds: toSeconds(outputLength(highlight)),
      shapes: highlight.shapes.map(({ id, width, height }) => ({ id, width, height })),
    },
    outlet: outlet?.name ?? null,
    loudness: loudness && { lufs: loudness.lufs, peakDb: loudness.peakDb },
    findings: [...findings.map(line(false)), ...accepted.map(line(true))],
  }
}
