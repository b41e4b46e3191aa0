import { expect, it } from 'vitest'
import { tryRemedy } from '@/edit/remedies'
import { sampleEdit } from '../../../tests/support/edits'
import { findingsOf, NOTHING_MEASURED } from './findings'
import { findingsReport, reportOf } from './report'

it('a report holds every finding with its number, shape and times, what is meant so marked; it reads back as it was', () => {
  const { highlight, ...records } = sampleEdit()
  const findings = findingsOf(
    { highlight, ...records },
    {
      ...NOTHING_MEASURED,
      loudness: { lufs: -24, peakDb: -10, momentary: [] },
      presence: new Map([['f', { outside: [{ fromMicros: 1_000_000, toMicros: 3_000_000 }], holding: null }]]),
    },
    tryRemedy,
  )
  const [first, ...others] = findings
  if (!first || others.length === 0) throw new Error('too little found')
  const report = reportOf(
    highlight,
    null,
    { findings: others, accepted: [first], loudness: { lufs: -24, peakDb: -10, momentary: [] } },
    '2026-11-26T10:00:00.000Z',
    (f) => f.key,
  )
  expect(findingsReport.parse(JSON.parse(JSON.stringify(report)))).toEqual(report)
  expect(report.findings).toHaveLength(findings.length)
  expect(report.findings.filter((f) => f.accepted).map((f) => f.words)).toEqual([first.key])
  expect(report.findings.find((f) => f.fault.kind === 'leaves-region')).toMatchObject({
    fault: { share: 0.2 },
    times: [{ fromSeconds: 1, toSeconds: 3 }],
    fromSeconds: 1,
    toSeconds: 3,
  })
  expect(report).toMatchObject({
    highlight: { name: 'Last gate', lengthSeconds: 10 },
    loudness: { lufs: -24 },
    outlet: null,
  })
})
