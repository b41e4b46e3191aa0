'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { useVirtualizer } from '@tanstack/react-virtual'
import { useEffect, useLayoutEffect, useMemo, useRef, useState, type RefObject } from 'react'
import { shortHandles } from '@/core/cut/handles'
import { recordingOf } from '@/core/model/edit'
import type { PassageId } from '@/core/model/ids'
import { MICROS_PER_SECOND, type Micros } from '@/core/time/micros'
import type { PlacedPassage, TimeMap } from '@/core/time/timeMap'
import { formatTime } from '@/ui/format'
import { fonts, palette, textSize } from '@/ui/theme'
import { movePassage, restoreStrike, strikeAll } from '@/edit/passages'
import { useBenchContext, useFootage, useTimeMap, useView } from '../benchContext'
import { SheetMarks } from '../gauges/FoundMarks'
import { useDrag } from '@/ui/useDrag'
import { CutHandle } from './CutHandle'
import { JoinStrip } from './JoinStrip'
import { PassageHeader } from './PassageHeader'
import {
  layOutSheet,
  outputAt,
  recordingPerPixel,
  ROW_HEIGHT,
  topOfOutput,
  topOfRecording,
  type Opened,
  type SheetItem,
  type SheetLayout,
} from './sheetLayout'
import { SheetRowView } from './SheetRowView'
import { CueLines } from '../words/CueLines'
import { HATCHED, StrikeStrip } from './StrikeStrip'
import type { Pause } from './useDeadAir'
import { rowKey, useSheetRows, type RowItem } from './useSheetRows'
import { wording } from './wording'

/** Rows shown beyond a cut while it is being trimmed. */
const ROWS_BEYOND = 4

/** Left of this many px a drag marks a stretch; right of it, it moves the playhead. */
const MARKING_WIDTH = 66

/** The Sheet's rows: only those in sight are in the document. */
export function SheetRows({ rowMicros, pauses }: { rowMicros: Micros; pauses: readonly Pause[] }) {
  const { player, session, view } = useBenchContext()
  const edit = useFootage()
  const map = useTimeMap()
  const scroller = useRef<HTMLDivElement>(null)
  const content = useRef<HTMLDivElement>(null)
  const [opened, setOpened] = useState<Opened | null>(null)
  const [dropAt, setDropAt] = useState<number | null>(null)
  const [carried, setCarried] = useState<PassageId | null>(null)
  const layout = useMemo(() => layOutSheet(map, rowMicros, opened), [map, rowMicros, opened])
  const { items } = layout
  const virtual = useVirtualizer({
    count: items.length,
    getScrollElement: () => scroller.current,
    estimateSize: (i) => items[i]?.height ?? 0,
    getItemKey: (i) => items[i]?.key ?? i,
    overscan: 4,
  })
  useLayoutEffect(() => virtual.measure(), [virtual, layout])
  const shown = virtual.getVirtualItems().flatMap(({ index }) => items[index] ?? [])
  const [from, to] = [shown[0]?.top ?? 0, (shown.at(-1)?.top ?? 0) + (shown.at(-1)?.height ?? 0)]
  const rows = useSheetRows(
    edit,
    shown.filter((item) => item.kind === 'row'),
  )
  const shortages = useMemo(() => shortHandles(map, (p) => recordingOf(edit, p.recordingId)), [map, edit])
  const keepInPlace = useKeepInPlace(scroller, layout)
  useFollow(scroller, layout, map)

  const open = (placed: PlacedPassage, which: 'in' | 'out') => {
    const { passage } = placed
    keepInPlace(passage.id, which)
    const beyond = ROWS_BEYOND * recordingPerPixel(layout, placed) * ROW_HEIGHT
    const { durationMicros } = recordingOf(edit, passage.recordingId)
    setOpened(
      which === 'in'
        ? { passageId: passage.id, fromMicros: Math.max(0, passage.inMicros - beyond), toMicros: passage.outMicros }
        : {
            passageId: passage.id,
            fromMicros: passage.inMicros,
            toMicros: Math.min(durationMicros, passage.outMicros + beyond),
          },
    )
  }
  const shut = (placed: PlacedPassage, which: 'in' | 'out') => {
    keepInPlace(placed.passage.id, which)
    setOpened(null)
  }
  const carry = ({ passage, index }: PlacedPassage, by: 1 | -1) => {
    setCarried(passage.id)
    movePassage(session, { from: index, to: index + by })
  }
  useLayoutEffect(() => {
    const header = carried && items.find((item) => item.kind === 'header' && item.placed.passage.id === carried)
    if (header) scroller.current?.scrollTo({ top: header.top - ROW_HEIGHT })
  }, [carried, items])
  const drop = useDropTarget(content, layout, map, dropAt, setDropAt)

  const dragging = useDrag((event) => {
    const bounds = content.current?.getBoundingClientRect()
    if (!bounds) return null
    const at = (clientY: number) => outputAt(layout, clientY - (content.current?.getBoundingClientRect().top ?? 0))
    const start = at(event.clientY)
    if (document.activeElement instanceof HTMLElement && scroller.current?.contains(document.activeElement))
      document.activeElement.blur()
    if (event.clientX - bounds.left < MARKING_WIDTH || event.shiftKey) {
      view.setState({ stretch: null })
      return ({ clientY }) => {
        const t = at(clientY)
        player.scrub(t)
        view.setState({
          stretch: t === start ? null : { fromMicros: Math.min(t, start), toMicros: Math.max(t, start) },
        })
      }
    }
    player.scrub(start)
    return ({ clientY }) => player.scrub(at(clientY))
  })

  const draw = (item: SheetItem) => {
    switch (item.kind) {
      case 'header':
        return (
          <PassageHeader
            placed={item.placed}
            count={map.passages.length}
            onDragTo={(y) => drop(item.placed.index, y)}
            carried={carried === item.placed.passage.id}
            onCarry={(by) => carry(item.placed, by)}
          />
        )
      case 'row':
        return (
          <SheetRowView
            time={rowTime(item, rowMicros)}
            row={rows.get(rowKey(item))}
            height={item.height}
            beyond={isBeyond(item)}
          />
        )
      case 'strike':
        return (
          <StrikeStrip
            strike={item.strike}
            onRestore={() => restoreStrike(session, { id: item.placed.passage.id, strike: item.strike })}
          />
        )
      case 'foot':
        return null
      case 'join':
        return <JoinStrip index={item.index} shortages={shortages.filter((s) => s.index === item.index)} />
    }
  }

  return (
    <Box
      ref={scroller}
      data-testid="sheet-rows"
      onPointerDownCapture={() => setCarried(null)}
      onBlurCapture={(e) => e.relatedTarget && setCarried(null)}
      sx={{ flex: 1, minHeight: 0, overflowY: 'auto', position: 'relative', bgcolor: 'background.paper' }}
    >
      <Box
        ref={content}
        onPointerDown={dragging}
        sx={{ position: 'relative', height: layout.height + 24, touchAction: 'pan-y', userSelect: 'none' }}
      >
        {/* Stacked by themselves: while the playhead moves, rows are not painted again. */}
        <Box sx={{ position: 'absolute', inset: 0, isolation: 'isolate' }}>
          {shown.map((item) => (
            <Box
              key={item.key}
              sx={{ position: 'absolute', left: 0, right: 0, top: 0, height: item.height }}
              style={{ transform: `translateY(${item.top}px)` }}
            >
              {draw(item)}
            </Box>
          ))}
        </Box>
        <CueLines layout={layout} map={map} from={from} to={to} />
        <SheetMarks layout={layout} map={map} />
        <MarkedStretch layout={layout} map={map} />
        {pauses.map((pause) => (
          <PauseMark key={pause.key} pause={pause} layout={layout} />
        ))}
        {map.passages.map((placed) =>
          (['in', 'out'] as const).map((which) => {
            const top = topOfRecording(
              layout,
              placed.passage.id,
              which === 'in' ? placed.passage.inMicros : placed.passage.outMicros,
            )
            const inSight = top >= from && top <= to
            if (!inSight && opened?.passageId !== placed.passage.id) return null
            return (
              <CutHandle
                key={`${placed.passage.id} ${which}`}
                placed={placed}
                which={which}
                top={top}
                recordingPerPixel={recordingPerPixel(layout, placed)}
                several={map.passages.length > 1}
                onTake={() => open(placed, which)}
                onLetGo={() => shut(placed, which)}
              />
            )
          }),
        )}
        {dropAt !== null && (
          <Box
            aria-hidden
            sx={{
              position: 'absolute',
              left: 0,
              right: 0,
              top: dropTop(layout, dropAt),
              height: 3,
              mt: '-1px',
              bgcolor: palette.straw,
              zIndex: 5,
              pointerEvents: 'none',
            }}
          />
        )}
        <Playhead layout={layout} map={map} />
      </Box>
    </Box>
  )
}

function isBeyond({ placed: { passage }, recordingMicros, lengthMicros }: RowItem): boolean {
  return recordingMicros + lengthMicros <= passage.inMicros || recordingMicros >= passage.outMicros
}

/** A row's output time; beyond a cut, how far. */
function rowTime({ placed, recordingMicros, lengthMicros }: RowItem, rowMicros: Micros): string {
  const { passage, runs } = placed
  const decimals = decimalsOf(rowMicros, placed.startMicros)
  if (recordingMicros < passage.inMicros)
    return `−${((passage.inMicros - recordingMicros) / MICROS_PER_SECOND).toFixed(2)}`
  if (recordingMicros >= passage.outMicros)
    return `+${((recordingMicros + lengthMicros - passage.outMicros) / MICROS_PER_SECOND).toFixed(2)}`
  const run = runs.findLast((r) => r.inMicros <= recordingMicros) ?? runs[0]
  return run
    ? formatTime(
        run.startMicros + Math.round(((recordingMicros - run.inMicros) * 100) / passage.speedPercent),
        decimals,
      )
    : ''
}

type CutEdge = [id: PassageId, which: 'in' | 'out']

function topOfCut(layout: SheetLayout, [id, which]: CutEdge): number {
  const passage = layout.stretches.find((s) => s.placed.passage.id === id)?.placed.passage
  return passage ? topOfRecording(layout, id, which === 'in' ? passage.inMicros : passage.outMicros) : 0
}

/** Remembers where a cut is on the screen before the Sheet is laid out anew, and scrolls so that it is there again. */
function useKeepInPlace(scroller: RefObject<HTMLDivElement | null>, layout: SheetLayout) {
  const kept = useRef<{ edge: CutEdge; top: number } | null>(null)
  useLayoutEffect(() => {
    if (kept.current) scroller.current?.scrollBy({ top: topOfCut(layout, kept.current.edge) - kept.current.top })
    kept.current = null
  }, [scroller, layout])
  return (...edge: CutEdge) => {
    kept.current = { edge, top: topOfCut(layout, edge) }
  }
}

/** Where a passage that is dragged would land: the gap between passages nearest to the pointer. */
function useDropTarget(
  content: RefObject<HTMLDivElement | null>,
  layout: SheetLayout,
  map: TimeMap,
  dropAt: number | null,
  setDropAt: (gap: number | null) => void,
) {
  const { session } = useBenchContext()
  return (from: number, clientY: number | null) => {
    if (clientY === null) {
      if (dropAt !== null) movePassage(session, { from, to: dropAt > from ? dropAt - 1 : dropAt })
      return setDropAt(null)
    }
    const y = clientY - (content.current?.getBoundingClientRect().top ?? 0)
    const gaps = Array.from({ length: map.passages.length + 1 }, (_, i) => i)
    setDropAt(
      gaps.reduce((best, gap) =>
        Math.abs(dropTop(layout, gap) - y) < Math.abs(dropTop(layout, best) - y) ? gap : best,
      ),
    )
  }
}

/** The height of the gap before passage `index`, or after the last. */
function dropTop(layout: SheetLayout, index: number): number {
  return layout.items.find((item) => item.kind === 'header' && item.placed.index === index)?.top ?? layout.height
}

function MarkedStretch({ layout, map }: { layout: SheetLayout; map: TimeMap }) {
  const stretch = useView((v) => v.stretch)
  if (!stretch) return null
  const top = topOfOutput(layout, map, stretch.fromMicros)
  const bottom = topOfOutput(layout, map, stretch.toMicros)
  return (
    <Box
      data-testid="marked-stretch"
      aria-hidden
      sx={{
        position: 'absolute',
        left: 0,
        width: MARKING_WIDTH,
        top,
        height: Math.max(2, bottom - top),
        bgcolor: 'rgba(201, 138, 27, 0.28)',
        borderLeft: `4px solid ${palette.straw}`,
        pointerEvents: 'none',
        zIndex: 1,
      }}
    />
  )
}

/** A pause that is proposed to be struck out, over its rows, with a button for it alone. */
function PauseMark({ pause, layout }: { pause: Pause; layout: SheetLayout }) {
  const { session } = useBenchContext()
  const { passageId, strike } = pause
  const top = topOfRecording(layout, passageId, strike.fromMicros)
  const bottom = topOfRecording(layout, passageId, strike.toMicros)
  const length = ((strike.toMicros - strike.fromMicros) / MICROS_PER_SECOND).toFixed(2)
  return (
    <Box
      sx={{
        position: 'absolute',
        left: 0,
        right: 0,
        top,
        height: Math.max(2, bottom - top),
        background: HATCHED(palette.straw),
        borderBlock: `1px solid ${palette.straw}`,
        pointerEvents: 'none',
        zIndex: 2,
      }}
    >
      <Button
        aria-label={wording.strikeOutThePauseOf(length, formatTime(strike.fromMicros, 2))}
        onPointerDown={(e) => e.stopPropagation()}
        onClick={() => strikeAll(session, { label: wording.strikeOutPause, stretches: [pause] })}
        sx={{
          position: 'absolute',
          right: 6,
          top: 'calc(50% - 12px)',
          minHeight: 24,
          py: 0,
          pointerEvents: 'auto',
          fontSize: textSize.note,
        }}
      >
        {wording.sOfLength(length)}
      </Button>
    </Box>
  )
}

/**
 * The moment being shown, as a line across. Moved without React, and on a layer of its own: nothing else is drawn
 * anew for it.
 */
function Playhead({ layout, map }: { layout: SheetLayout; map: TimeMap }) {
  const { player } = useBenchContext()
  const line = useRef<HTMLDivElement>(null)
  const label = useRef<HTMLSpanElement>(null)
  useEffect(
    () =>
      player.onPosition((t) => {
        if (line.current) line.current.style.transform = `translateY(${topOfOutput(layout, map, t)}px)`
        if (label.current) label.current.textContent = formatTime(t, 2)
      }),
    [player, layout, map],
  )
  return (
    <Box
      ref={line}
      aria-hidden
      sx={{
        position: 'absolute',
        left: 0,
        right: 0,
        top: 0,
        height: 0,
        borderTop: `2px solid ${palette.haw}`,
        pointerEvents: 'none',
        zIndex: 4,
        willChange: 'transform',
      }}
    >
      <Box
        component="span"
        ref={label}
        sx={{
          position: 'absolute',
          right: 0,
          top: -9,
          width: 62,
          textAlign: 'center',
          contain: 'strict',
          height: 16,
          bgcolor: palette.haw,
          color: '#fff',
          fontFamily: fonts.numbers,
          fontSize: textSize.small,
          lineHeight: '16px',
        }}
      />
    </Box>
  )
}

/** Keeps the playhead in sight while playing and after a jump. */
function useFollow(scroller: RefObject<HTMLDivElement | null>, layout: SheetLayout, map: TimeMap): void {
  const { player } = useBenchContext()
  useEffect(() => {
    // The first call tells where the playhead is, not that it went there: a new layout must not scroll.
    let told = false
    return player.onPosition((t) => {
      const element = scroller.current
      if (!element || !told) return void (told = true)
      const top = topOfOutput(layout, map, t)
      const y = top - element.scrollTop
      if (y < 20 || y > element.clientHeight - 30) element.scrollTop = top - element.clientHeight * 0.3
    })
  }, [player, scroller, layout, map])
}

/** Decimals that the times of rows need to be told apart. */
function decimalsOf(rowMicros: Micros, startMicros: Micros): number {
  if (rowMicros < MICROS_PER_SECOND) return 2
  return rowMicros % MICROS_PER_SECOND === 0 && startMicros % MICROS_PER_SECOND === 0 ? 0 : 1
}
