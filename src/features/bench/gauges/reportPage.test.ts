// @vitest-environment happy-dom
import { expect, it } from 'vitest'
import type { FindingsReport } from '@/core/findings/report'
import { reportPage } from './reportPage'

const report: FindingsReport = {
  kind: 'brimble-findings',
  version: 1,
  madeAt: '2026-11-26T10:00:00.000Z',
  highlight: {
    name: '<img src=x onerror=alert(1)> last gate',
    lengthSeconds: 12.5,
    shapes: [{ id: 'tall', width: 1080, height: 1920 }],
  },
  outlet: null,
  loudness: { lufs: -14.2, peakDb: -1.5 },
  findings: [
    {
      severity: 'warn',
      words: 'Face is there twice: 38 % <script>alert(1)</script>',
      fault: { kind: 'shown-twice' },
      shape: 'tall',
      fromSeconds: 0,
      toSeconds: 12.5,
      times: [],
      accepted: false,
    },
    {
      severity: 'note',
      words: 'Face is enlarged 2.35×',
      fault: { kind: 'blown-up' },
      shape: null,
      fromSeconds: 0,
      toSeconds: 12.5,
      times: [{ fromSeconds: 1, toSeconds: 2 }],
      accepted: true,
    },
  ],
}

it('the page says each finding in a row, and sets every text as text', () => {
  const page = reportPage(report, [])
  expect(page).not.toMatch(/<script|<img/)
  expect(page).toContain('&lt;script&gt;')
  const read = new DOMParser().parseFromString(page, 'text/html')
  const rows = [...read.querySelectorAll('tr')]
    .slice(1)
    .map((row) => [...row.querySelectorAll('td')].map((cell) => cell.textContent))
  expect(rows).toEqual([
    ['Warning', 'Face is there twice: 38 % <script>alert(1)</script>', 'tall', '0:00.0–0:12.5'],
    ['Ignore', 'Face is enlarged 2.35×', 'all', '0:01.0–0:02.0'],
  ])
  expect(read.querySelector('p')?.textContent).toContain('-14.2 LUFS')
  expect(read.querySelector('h1')?.textContent).toBe(report.highlight.name)
})
