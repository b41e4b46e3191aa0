'use client'

import CloseIcon from '@mui/icons-material/Close'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import IconButton from '@mui/material/IconButton'
import Tooltip from '@mui/material/Tooltip'
import { useVirtualizer } from '@tanstack/react-virtual'
import { useLiveQuery } from 'dexie-react-hooks'
import Link from 'next/link'
import { useEffect, useRef, useState } from 'react'
import type { Analysis } from '@/core/detect/analysis'
import type { HighlightId } from '@/core/model/ids'
import type { Moment } from '@/core/model/spotting'
import type { Micros } from '@/core/time/micros'
import { highlightsCutFrom } from '@/store/highlights'
import { formatTime } from '@/ui/format'
import { fonts, iconSize, palette, textSize } from '@/ui/theme'
import { useBlobUrl } from '@/ui/useBlobUrl'
import { drop, keep } from '@/edit/moments'
import { FindingSettings } from './FindingSettings'
import { whyHere, wording } from './wording'
import { bringIntoSight, useSpotContext, useSpotView } from './spotContext'
import type { SpottedMoments } from './useMoments'

const ROW_HEIGHT = 50

/** Moments proposed and one's own, each to be kept or dropped. */
export function MomentList({ found }: { found: SpottedMoments }) {
  const [order, setOrder] = useState<'time' | 'liveliness'>('time')
  const selected = useSpotView((v) => v.selected)
  const { recording } = useSpotContext()
  const cut = useLiveQuery(() => highlightsCutFrom(recording.id), [recording.id])
  const highlightOf = ({ inMicros, outMicros }: Moment) =>
    cut?.find((h) => h.origin?.inMicros === inMicros && h.origin.outMicros === outMicros)?.id ?? null
  const scroller = useRef<HTMLDivElement>(null)
  const moments = order === 'time' ? found.moments : [...found.moments].sort((a, b) => (b.score ?? 2) - (a.score ?? 2))
  const virtual = useVirtualizer({
    count: moments.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_HEIGHT,
    overscan: 6,
  })
  const index = moments.findIndex((m) => m.id === selected)
  useEffect(() => {
    if (index >= 0) virtual.scrollToIndex(index)
  }, [virtual, index])
  const proposed = moments.filter((m) => m.source === 'proposed').length
  const yours = moments.length - proposed
  return (
    <Box
      component="section"
      aria-label={wording.moments}
      sx={{ display: 'flex', flexDirection: 'column', minHeight: 0, borderLeft: 1, borderColor: 'divider' }}
    >
      <Box
        sx={{
          display: 'flex',
          alignItems: 'center',
          gap: 2,
          px: 3,
          height: 40,
          flex: 'none',
          borderBottom: 1,
          borderColor: 'divider',
        }}
      >
        <Box component="h2" sx={{ m: 0, fontSize: textSize.body, fontWeight: 700 }}>
          {wording.moments}
        </Box>
        <Box sx={{ fontSize: textSize.note, color: palette.inkSoft, whiteSpace: 'nowrap' }}>
          {wording.proposed(proposed)}
          {yours > 0 && wording.yours(yours)}
        </Box>
        <Box sx={{ flex: 1 }} />
        <Button onClick={() => setOrder(order === 'time' ? 'liveliness' : 'time')}>
          {order === 'time' ? wording.inOrderOfTime : wording.liveliestFirst}
        </Button>
        <FindingSettings />
      </Box>
      <Box ref={scroller} sx={{ flex: 1, minHeight: 0, overflowY: 'auto' }}>
        {moments.length === 0 && (
          <Box sx={{ p: 4, fontSize: textSize.body, color: palette.inkSoft }}>
            {found.state.kind === 'done' ? wording.nothingHereIsLivelierThan : wording.momentsAppearHereWhileThe}
          </Box>
        )}
        <Box role="list" sx={{ height: virtual.getTotalSize(), position: 'relative' }}>
          {virtual.getVirtualItems().map((item) => {
            const moment = moments[item.index]
            return (
              moment && (
                <Box
                  key={moment.id}
                  sx={{ position: 'absolute', left: 0, right: 0, top: 0, height: ROW_HEIGHT }}
                  style={{ transform: `translateY(${item.start}px)` }}
                >
                  <MomentRow
                    moment={moment}
                    analysis={found.analysis}
                    highlightId={highlightOf(moment)}
                    selected={moment.id === selected}
                  />
                </Box>
              )
            )
          })}
        </Box>
      </Box>
    </Box>
  )
}

const STATE_WORDS = { open: wording.undecided, kept: wording.kept, dropped: wording.dropped, cut: wording.cut } as const

function MomentRow({
  moment,
  analysis,
  highlightId,
  selected,
}: {
  moment: Moment
  analysis: Analysis
  highlightId: HighlightId | null
  selected: boolean
}) {
  const { session, player, view, recording } = useSpotContext()
  const url = useBlobUrl(pictureNear(analysis, moment.peakMicros))
  const { inMicros, outMicros, state, score } = moment
  const take = () => {
    view.setState({ selected: moment.id })
    bringIntoSight(view, recording.durationMicros, inMicros, outMicros)
    player.seek(inMicros)
  }
  const kept = state === 'kept' || state === 'cut'
  return (
    <Box
      role="listitem"
      aria-label={wording.to(formatTime(inMicros), formatTime(outMicros), STATE_WORDS[state])}
      data-state={state}
      data-in={inMicros}
      data-out={outMicros}
      data-score={score ?? ''}
      onClick={take}
      sx={{
        height: '100%',
        display: 'grid',
        gridTemplateColumns: '72px minmax(0, 1fr) auto auto',
        columnGap: 2,
        alignItems: 'center',
        px: 3,
        borderBottom: 1,
        borderColor: 'divider',
        cursor: 'pointer',
        bgcolor: selected ? palette.leafTint : undefined,
        opacity: state === 'dropped' ? 0.55 : 1,
      }}
    >
      <Box sx={{ width: 72, height: 40, bgcolor: palette.mat, overflow: 'hidden' }}>
        {url && (
          <Box
            component="img"
            src={url}
            alt=""
            sx={{ width: '100%', height: '100%', objectFit: 'cover', display: 'block' }}
          />
        )}
      </Box>
      <Box sx={{ minWidth: 0 }}>
        <Box
          component="button"
          type="button"
          onClick={take}
          aria-current={selected}
          sx={{
            all: 'unset',
            cursor: 'pointer',
            fontFamily: fonts.numbers,
            fontSize: textSize.note,
            whiteSpace: 'nowrap',
            '&:focus-visible': { outline: `2px solid ${palette.leaf}`, outlineOffset: 2 },
          }}
        >
          {formatTime(inMicros)} – {formatTime(outMicros)}
        </Box>
        <Box
          title={whyHere(moment)}
          sx={{
            fontSize: textSize.note,
            color: palette.inkSoft,
            overflow: 'hidden',
            textOverflow: 'ellipsis',
            whiteSpace: 'nowrap',
          }}
        >
          {whyHere(moment)}
        </Box>
      </Box>
      <Box
        title={score === null ? undefined : wording.howLivelyOf1}
        sx={{ fontFamily: fonts.numbers, fontSize: textSize.note, color: palette.inkSoft }}
      >
        {score === null ? wording.yoursLowercase : wording.percent(score)}
      </Box>
      {state === 'cut' && highlightId ? (
        <Button
          component={Link}
          href={`/highlight/${encodeURIComponent(highlightId)}`}
          onClick={(e) => e.stopPropagation()}
          sx={{ minWidth: 74 }}
        >
          {wording.open}
        </Button>
      ) : (
        <Box sx={{ display: 'flex', gap: 1 }} onClick={(e) => e.stopPropagation()}>
          <Button
            disabled={state === 'cut'}
            aria-pressed={kept}
            onClick={() => (state === 'kept' ? drop : keep)(session, { moment })}
            sx={{
              minWidth: 64,
              ...(kept && { '&&': { bgcolor: palette.leafTint, borderColor: palette.leaf, color: palette.ink } }),
            }}
          >
            {kept ? STATE_WORDS[state] : wording.keep}
          </Button>
          <Tooltip title={wording.drop}>
            <IconButton
              aria-label={wording.drop}
              aria-pressed={state === 'dropped'}
              disabled={state === 'cut'}
              onClick={() => (state === 'dropped' ? keep : drop)(session, { moment })}
            >
              <CloseIcon sx={{ fontSize: iconSize.small }} />
            </IconButton>
          </Tooltip>
        </Box>
      )}
    </Box>
  )
}

/** The analysis's last picture before a moment. */
function pictureNear({ pictures }: Analysis, t: Micros): Blob | null {
  let found: { micros: Micros; picture: Blob } | null = null
  for (const part of pictures.values())
    for (const p of part.pictures) if (p.micros <= t && (!found || p.micros > found.micros)) found = p
  return found?.picture ?? null
}
