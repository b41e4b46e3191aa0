import type { Edit } from '../model/edit'
import type { RecordingId } from '../model/ids'
import { recordingFeeds } from '../model/passage'
import { joinLength } from '../model/join'
import type { Micros } from '../time/micros'
import { timeMapOf } from '../time/timeMap'

/** A stretch of a recording, recording time, end-exclusive. */
export interface Span {
  fromMicros: Micros
  toMicros: Micros
}

/**
 * What of a recording edits use, with handles of so much on either side and what joins take beyond cut points;
 * merged, in order.
 */
export function usedSpans(edits: readonly Edit[], id: RecordingId, handleMicros: Micros): Span[] {
  const spans = edits.flatMap(({ highlight }) => {
    const map = timeMapOf(highlight)
    return map.passages.flatMap(({ passage, startMicros, endMicros, index }): Span[] => {
      const extra =
        handleMicros + joinLength(passage.join) + joinLength(highlight.passages[index - 1]?.join ?? { kind: 'cut' })
      const heard = { fromMicros: passage.inMicros - extra, toMicros: passage.outMicros + extra }
      const { picture } = passage
      const seen = picture
        ? {
            fromMicros: picture.inMicros - extra,
            toMicros: picture.inMicros + Math.round(((endMicros - startMicros) * picture.speedPercent) / 100) + extra,
          }
        : heard
      const own = passage.recordingId === id ? [heard, seen] : []
      const fed = recordingFeeds(passage).flatMap(({ recordingId, clock }): Span[] => {
        if (recordingId !== id) return []
        if (clock.kind === 'together')
          return [{ fromMicros: seen.fromMicros + clock.offsetMicros, toMicros: seen.toMicros + clock.offsetMicros }]
        return [
          {
            fromMicros: clock.inMicros - extra,
            toMicros: clock.inMicros + Math.round(((endMicros - startMicros) * clock.speedPercent) / 100) + extra,
          },
        ]
      })
      // A shot that stays in its band plays on until the highlight's end, at most.
      const staysOn =
        highlight.passages.some((p) =>
          p.feeds.some(({ plays }) => plays.kind === 'passage' && plays.passageId === passage.id),
        ) && passage.recordingId === id
      return staysOn
        ? [
            ...own,
            ...fed,
            {
              fromMicros: seen.fromMicros,
              toMicros:
                (picture ?? passage).inMicros +
                Math.round(((map.lengthMicros - startMicros) * (picture ?? passage).speedPercent) / 100) +
                extra,
            },
          ]
        : [...own, ...fed]
    })
  })
  const merged: Span[] = []
  for (const span of spans
    .map((s) => ({ ...s, fromMicros: Math.max(0, s.fromMicros) }))
    .sort((a, b) => a.fromMicros - b.fromMicros)) {
    const last = merged.at(-1)
    if (last && span.fromMicros <= last.toMicros) last.toMicros = Math.max(last.toMicros, span.toMicros)
    else merged.push(span)
  }
  return merged
}
