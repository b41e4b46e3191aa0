import { reportOf, type FindingsReport } from '@/core/findings/report'
import { passageAt, timeMapOf } from '@/core/time/timeMap'
import { inspector } from '@/media/inspect/inspector'
import { fileSafe } from '@/core/output/fileName'
import { offerDownload } from '@/ui/offerDownload'
import { useBenchContext, useView } from '../benchContext'
import { faultWords } from '@/shared/findingWords'
import type { Looked } from './useFindings'
import { reportPage } from './reportPage'

/** Px; pictures are only to tell which highlight it is. */
const PICTURE_HEIGHT = 520

/** Saves what was found, as data or as a page to send to somebody. */
export function useReport(looked: Looked): (as: 'json' | 'page') => Promise<void> {
  const { session, files } = useBenchContext()
  const outlet = useView((v) => v.outlet)
  return async (as) => {
    const edit = session.value
    const { highlight } = edit
    const report: FindingsReport = reportOf(highlight, outlet, looked, new Date().toISOString(), (f) =>
      faultWords(f.fault),
    )
    const name = `${fileSafe(highlight.name)} findings`
    if (as === 'json')
      return offerDownload(new Blob([JSON.stringify(report, null, 2)], { type: 'application/json' }), `${name}.json`)
    const map = timeMapOf(highlight)
    const placed = passageAt(map, 0)
    const t = placed ? Math.round((placed.startMicros + placed.endMicros) / 2) : 0
    const pictures: { shape: string; url: string }[] = []
    for (const shape of highlight.shapes) {
      const picture = await inspector().still(edit, shape, files, t, PICTURE_HEIGHT)
      if (picture) pictures.push({ shape: shape.id, url: await dataUrl(picture) })
    }
    offerDownload(new Blob([reportPage(report, pictures)], { type: 'text/html' }), `${name}.html`)
  }
}

function dataUrl(blob: Blob): Promise<string> {
  return new Promise((resolve, reject) => {
    const reader = new FileReader()
    reader.onload = () => resolve(String(reader.result))
    reader.onerror = () => reject(reader.error ?? new Error('not read'))
    reader.readAsDataURL(blob)
  })
}
