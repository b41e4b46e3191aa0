'use client'

import Box from '@mui/material/Box'
import { useMemo } from 'react'
import { isWorse, type Finding, type Severity } from '@/core/findings/finding'
import type { Shape } from '@/core/model/shape'
import type { TimeMap } from '@/core/time/timeMap'
import { palette } from '@/ui/theme'
import { useView } from '../benchContext'
import { topOfOutput, type SheetLayout } from '../sheet/sheetLayout'
import { countWords, faultWords } from '@/shared/findingWords'

export const SEVERITY_COLOURS: Record<Severity, string> = {
  stop: palette.haw,
  warn: palette.strawInk,
  note: palette.slate,
}

const NONE: readonly Finding[] = []

const timesOf = ({ times, fromMicros, toMicros }: Finding) => times ?? [{ fromMicros, toMicros }]

/**
 * A fault that is there all the time is told by the gauge and in the shape; the Sheet tells of those that have a time
 * of their own.
 */
function hasItsTime(finding: Finding, map: TimeMap): boolean {
  const passage = map.passages.find((p) => p.passage.id === finding.passageId)
  const [from, to] = passage ? [passage.startMicros, passage.endMicros] : [0, map.lengthMicros]
  return timesOf(finding).some((t) => t.fromMicros > from || t.toMicros < to)
}

/** When something is wrong, along the Sheet's left edge. */
export function SheetMarks({ layout, map }: { layout: SheetLayout; map: TimeMap }) {
  const findings = useView((v) => v.looked?.findings ?? NONE)
  // The worst is drawn last, over the others.
  const marks = useMemo(() => findings.filter((f) => hasItsTime(f, map)).toReversed(), [findings, map])
  return marks.flatMap((finding) =>
    timesOf(finding).map(({ fromMicros, toMicros }) => {
      const top = topOfOutput(layout, map, fromMicros)
      return (
        <Box
          key={`${finding.key} ${fromMicros}`}
          data-testid="found-on-sheet"
          title={faultWords(finding.fault)}
          onPointerDown={(e) => e.stopPropagation()}
          sx={{
            position: 'absolute',
            left: 0,
            width: 5,
            top,
            height: Math.max(3, topOfOutput(layout, map, toMicros) - top),
            bgcolor: SEVERITY_COLOURS[finding.severity],
            zIndex: 2,
          }}
        />
      )
    }),
  )
}

/** A corner of each panel in which something is wrong that must stop or warn, while its passage is worked on. */
export function ShapeMarks({ shape }: { shape: Shape }) {
  const passageId = useView((v) => v.passageId)
  const findings = useView((v) => v.looked?.findings ?? NONE)
  const bad = findings.filter(
    (f) => f.shapeId === shape.id && f.rect && f.severity !== 'note' && f.passageId === passageId,
  )
  const places = new Map(bad.map((f) => [Object.values(f.rect ?? {}).join(), f.rect]))
  return [...places].flatMap(([key, rect]) => {
    const alike = bad.filter((f) => Object.values(f.rect ?? {}).join() === key)
    const [first] = alike
    if (!first || !rect) return []
    const { x, y, width } = rect
    return [
      <Box
        key={key}
        data-testid="found-in-shape"
        title={alike.map((f) => faultWords(f.fault)).join('\n')}
        sx={{
          position: 'absolute',
          zIndex: 3,
          left: `calc(${(100 * (x + width)) / shape.width}% - 14px)`,
          top: `${(100 * y) / shape.height}%`,
          width: 14,
          height: 14,
          bgcolor: SEVERITY_COLOURS[first.severity],
          clipPath: 'polygon(0 0, 100% 0, 100% 100%)',
        }}
      />,
    ]
  })
}

/** What is wrong with a region, beside its name. */
export function RegionMark({ regionId }: { regionId: string }) {
  const all = useView((v) => v.looked?.findings ?? NONE)
  const own = all.filter((f) => f.regionId === regionId)
  const worst = own.reduce<Severity | null>((w, f) => (w === null || isWorse(f.severity, w) ? f.severity : w), null)
  if (!worst || worst === 'note') return null
  const words = [...new Set(own.map((f) => faultWords(f.fault)))]
  return (
    <Box
      component="span"
      role="img"
      aria-label={countWords(own.map((f) => f.severity))}
      title={words.join('\n')}
      sx={{ flex: 'none', width: 8, height: 8, borderRadius: '50%', bgcolor: SEVERITY_COLOURS[worst] }}
    />
  )
}
