import type { FindingsReport } from '@/core/findings/report'
import { MICROS_PER_SECOND } from '@/core/time/micros'
import { formatTime } from '@/ui/format'
import { wording } from './wording'

const SEVERITIES = { stop: wording.stop, warn: wording.warning, note: wording.note } as const

const STYLE = `
  body { font: 15px/1.5 system-ui, sans-serif; color: #1d231e; background: #fbfaf6; max-width: 62rem; margin: 2rem auto; padding: 0 1.5rem }
  h1 { font-size: 1.5rem; margin: 0 } p { color: #5a635b; margin: .25rem 0 1.25rem }
  table { border-collapse: collapse; width: 100% } th, td { text-align: left; vertical-align: top; padding: .5rem .75rem .5rem 0; border-bottom: 1px solid #d9d6cc }
  td.time { font-variant-numeric: tabular-nums; white-space: nowrap }
  tr[data-severity=stop] td:first-child { color: #a03424; font-weight: 700 } tr[data-severity=warn] td:first-child { color: #7a5200; font-weight: 700 }
  .pictures { display: flex; flex-wrap: wrap; gap: 1rem; margin: 0 0 1.5rem } figure { margin: 0 } figure img { height: 260px; display: block; border: 1px solid #d9d6cc } figcaption { font-size: .85rem; color: #5a635b }
`

/**
 * What was found as a page that stands by itself: no scripts, nothing from elsewhere. `pictures`: each shape as a
 * data URL. Texts are set as text, whatever is in them.
 */
export function reportPage(report: FindingsReport, pictures: readonly { shape: string; url: string }[]): string {
  const page = document.implementation.createHTMLDocument(wording.findings(report.highlight.name))
  page.documentElement.lang = 'en'
  const make = (name: string, text?: string, attributes: Record<string, string> = {}) => {
    const element = page.createElement(name)
    if (text !== undefined) element.textContent = text
    for (const [key, value] of Object.entries(attributes)) element.setAttribute(key, value)
    return element
  }
  const time = (seconds: number) => formatTime(seconds * MICROS_PER_SECOND)
  page.head.append(
    make('meta', undefined, { charset: 'utf-8' }),
    make('meta', undefined, { name: 'viewport', content: 'width=device-width' }),
    make('style', STYLE),
  )
  const { highlight, loudness, outlet, findings } = report
  const facts = [
    `${time(highlight.lengthSeconds)} long`,
    highlight.shapes.map((s) => `${s.id} ${s.width} × ${s.height}`).join(', '),
    ...(loudness ? [wording.lufsPeaksAtDbtp(loudness.lufs.toFixed(1), loudness.peakDb.toFixed(1))] : []),
    outlet ? wording.lookedAtFor(outlet) : wording.forNoOutletInParticular,
    report.madeAt.slice(0, 16).replace('T', ', '),
  ]
  page.body.append(make('h1', highlight.name), make('p', facts.join('; ')))
  const shown = make('div', undefined, { class: 'pictures' })
  for (const { shape, url } of pictures) {
    const figure = make('figure')
    figure.append(make('img', undefined, { src: url, alt: shape }), make('figcaption', shape))
    shown.append(figure)
  }
  if (pictures.length > 0) page.body.append(shown)
  if (findings.length === 0) page.body.append(make('p', wording.nothingToPutRight))
  else {
    const table = make('table')
    const head = make('tr')
    head.append(...['', wording.what, wording.shape, wording.when].map((t) => make('th', t)))
    table.append(head)
    for (const { severity, words, shape, fromSeconds, toSeconds, times, accepted } of findings) {
      const row = make('tr', undefined, { 'data-severity': accepted ? 'note' : severity })
      const spans = times.length > 0 ? times : [{ fromSeconds, toSeconds }]
      row.append(
        make('td', accepted ? wording.meantSo : SEVERITIES[severity]),
        make('td', words),
        make('td', shape ?? 'all'),
        make('td', spans.map((s) => `${time(s.fromSeconds)}–${time(s.toSeconds)}`).join(', '), { class: 'time' }),
      )
      table.append(row)
    }
    page.body.append(table)
  }
  return `<!doctype html>\n${page.documentElement.outerHTML}`
}
