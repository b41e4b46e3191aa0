'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { memo, useEffect, useMemo, useRef, useState, type MouseEvent } from 'react'
import type { Presence } from '@/core/detect/regions/presence'
import type { Rect, Size } from '@/core/geometry/rect'
import type { PassageId } from '@/core/model/ids'
import { showsSomebody, type Region } from '@/core/model/region'
import type { Micros } from '@/core/time/micros'
import { RoleBadge } from '@/ui/RoleBadge'
import { fonts, palette, textSize } from '@/ui/theme'
import { useGrowing } from '@/ui/useGrowing'
import { useBenchContext, useHighlight, useCalmParts, usePassage, useTimeMap } from '../benchContext'
import { RegionMark } from '../gauges/FoundMarks'
import {
  boundsByPassage,
  endLookingAlong,
  lookAlongAgain,
  presenceIn,
  type Along,
  type AlongMoment,
} from '@/shared/looks/along'
import { PathLine } from './PathLine'
import { PresenceFacts } from './PresenceFacts'
import { useAlong } from './useAlong'
import { useFollow } from './useFollow'
import { useHeads } from './useHeads'
import { wording } from './wording'

const HEIGHT = 30
const BAR = 5

/** Each region's crop along the whole highlight: one look shows where somebody leaves it. */
export function Ribbons() {
  const along = useAlong()
  useFollow(along)
  useHeads(along)
  const { setup, recording } = useCalmParts()
  const { lengthMicros } = useTimeMap()
  const shown = useGrowing(setup.regions.length, 4)
  return (
    <Box
      component="section"
      aria-label={wording.ribbons}
      sx={{ isolation: 'isolate', borderTop: 1, borderColor: 'divider', px: 3, py: 1.5, display: 'grid', rowGap: 1.5 }}
    >
      {setup.regions.slice(0, shown).map((region) => (
        // Where nobody has said yet where anything is, nobody is missing from it.
        <Ribbon
          key={region.id}
          region={region}
          frame={recording.video}
          along={along}
          lengthMicros={lengthMicros}
          watched={showsSomebody(region.role) && !setup.isGuess}
        />
      ))}
      {along?.state === 'failed' && (
        <Box sx={{ fontSize: textSize.note, color: palette.strawInk }}>{wording.theHighlightCouldNotBe}</Box>
      )}
      {along && (along.state === 'looking' || along.state === 'ended') && <Going along={along} />}
    </Box>
  )
}

/** How far looking along is, and how long it still takes; it can be ended, and begun again. */
function Going({ along }: { along: Along }) {
  const looking = along.state === 'looking'
  const left = along.secondsLeft
  const seen = along.moments.filter((m) => m.seen).length
  return (
    <Box
      role="status"
      sx={{ display: 'flex', alignItems: 'center', gap: 2, fontSize: textSize.small, color: palette.inkSoft }}
    >
      <Box sx={{ flex: 1, fontFamily: fonts.numbers }}>
        {looking ? wording.lookingAlongOf(seen, along.moments.length, left && Math.ceil(left)) : wording.alongWasEnded}
      </Box>
      <Button onClick={looking ? endLookingAlong : lookAlongAgain}>
        {looking ? wording.stop : wording.lookAlongAgain}
      </Button>
    </Box>
  )
}

const Ribbon = memo(function Ribbon({
  region,
  frame,
  along,
  lengthMicros,
  watched,
}: {
  region: Region
  frame: Size
  along: Along | null
  lengthMicros: Micros
  watched: boolean
}) {
  const { passages } = useHighlight()
  const bounds = useMemo(() => boundsByPassage(passages, region), [passages, region])
  const { subjects, presence } = useMemo(
    () => (along && watched ? presenceIn(along, region, bounds) : { subjects: null, presence: null }),
    [along, region, bounds, watched],
  )
  return (
    <Box role="group" aria-label={wording.alongTheHighlight(region.name)}>
      <Box sx={{ display: 'grid', gridTemplateColumns: '78px minmax(0, 1fr)', columnGap: 2, alignItems: 'center' }}>
        <Box
          sx={{
            display: 'flex',
            alignItems: 'center',
            gap: 1.5,
            fontSize: textSize.note,
            fontWeight: 600,
            minWidth: 0,
          }}
        >
          <RoleBadge role={region.role} />
          <Box
            component="span"
            title={region.name}
            sx={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}
          >
            {region.name}
          </Box>
          <RegionMark regionId={region.id} />
        </Box>
        <Strip
          region={region}
          bounds={bounds}
          frame={frame}
          along={along}
          lengthMicros={lengthMicros}
          presence={presence}
        />
      </Box>
      {presence && subjects && (
        <PresenceFacts region={region} bounds={bounds} frame={frame} presence={presence} by={subjects.by} />
      )}
      {!presence && watched && (along === null || along.state === 'stopped') && (
        <Box
          role="status"
          sx={{ ml: '86px', mt: 0.5, fontSize: textSize.small, color: palette.inkSoft, fontFamily: fonts.numbers }}
        >
          {wording.isLookedAlongWhenNothing}
        </Box>
      )}
    </Box>
  )
})

/** Pictures of the crop side by side on the output clock, a bar of presence under them; a click goes there. */
function Strip({
  region,
  bounds,
  frame,
  along,
  lengthMicros,
  presence,
}: {
  region: Region
  bounds: ReadonlyMap<PassageId, Rect>
  frame: Size
  along: Along | null
  lengthMicros: Micros
  presence: Presence | null
}) {
  const { player } = useBenchContext()
  const { passage } = usePassage()
  const path = passage.cropPaths.find((p) => p.regionId === region.id)
  const [width, setWidth] = useState(0)
  const host = useRef<HTMLDivElement>(null)
  useEffect(() => {
    const element = host.current
    if (!element) return
    const observer = new ResizeObserver(() => setWidth(element.clientWidth))
    observer.observe(element)
    return () => observer.disconnect()
  }, [])
  const aspect = (region.bounds.width * frame.width) / (region.bounds.height * frame.height)
  const count = Math.max(1, Math.round(width / (HEIGHT * aspect)))
  const seek = (event: MouseEvent) => {
    const box = event.currentTarget.getBoundingClientRect()
    player.seek(((event.clientX - box.left) / box.width) * lengthMicros)
  }
  const share = (t: Micros) => `${(100 * t) / Math.max(1, lengthMicros)}%`
  return (
    <Box
      ref={host}
      onClick={seek}
      data-testid={`ribbon-${region.role}`}
      sx={{ position: 'relative', cursor: 'pointer', minWidth: 0, overflowX: 'clip' }}
    >
      <Box sx={{ display: 'flex', height: HEIGHT, bgcolor: palette.mat, overflow: 'hidden', isolation: 'isolate' }}>
        {width > 0 &&
          Array.from({ length: count }, (_, n) => (
            <Cell key={n} region={region} bounds={bounds} moment={nearest(along, ((n + 0.5) * lengthMicros) / count)} />
          ))}
      </Box>
      <Box sx={{ position: 'relative', height: BAR, bgcolor: presence ? palette.leaf : palette.line }}>
        {presence?.outside.map(({ fromMicros, toMicros }) => (
          <Box
            key={fromMicros}
            data-outside={`${fromMicros} ${toMicros}`}
            sx={{
              position: 'absolute',
              top: -HEIGHT,
              bottom: 0,
              left: share(fromMicros),
              width: share(toMicros - fromMicros),
              minWidth: 2,
              borderBottom: `${BAR}px solid ${palette.haw}`,
              backgroundImage: `repeating-linear-gradient(135deg, ${palette.haw} 0 2px, transparent 2px 6px)`,
              backgroundSize: '100% 30px',
              backgroundRepeat: 'no-repeat',
            }}
          />
        ))}
      </Box>
      {path && (
        <PathLine region={region} bounds={bounds.get(passage.id) ?? region.bounds} path={path} height={HEIGHT} />
      )}
      <Playhead lengthMicros={lengthMicros} />
    </Box>
  )
}

function nearest(along: Along | null, t: Micros): AlongMoment | null {
  let best: AlongMoment | null = null
  for (const m of along?.moments ?? [])
    if (m.url && (!best || Math.abs(m.outputMicros - t) < Math.abs(best.outputMicros - t))) best = m
  return best && along && Math.abs(best.outputMicros - t) <= 8 * along.everyMicros ? best : null
}

function Cell({
  region,
  bounds,
  moment,
}: {
  region: Region
  bounds: ReadonlyMap<PassageId, Rect>
  moment: AlongMoment | null
}) {
  const { x, y, width, height } = (moment && bounds.get(moment.passageId)) ?? region.bounds
  return (
    <Box
      sx={{
        flex: '1 1 0',
        minWidth: 0,
        position: 'relative',
        overflow: 'hidden',
        borderRight: `1px solid ${palette.mat}`,
      }}
    >
      {moment?.url && (
        <img
          src={moment.url}
          alt=""
          draggable={false}
          style={{
            position: 'absolute',
            width: `${100 / width}%`,
            height: `${100 / height}%`,
            left: `${(-100 * x) / width}%`,
            top: `${(-100 * y) / height}%`,
          }}
        />
      )}
    </Box>
  )
}

/** Moved without React, and on a layer of its own: nothing else is drawn anew for it. */
function Playhead({ lengthMicros }: { lengthMicros: Micros }) {
  const { player } = useBenchContext()
  const line = useRef<HTMLDivElement>(null)
  useEffect(
    () =>
      player.onPosition((t) => {
        if (line.current) line.current.style.transform = `translateX(${(100 * t) / Math.max(1, lengthMicros)}%)`
      }),
    [player, lengthMicros],
  )
  return (
    <Box
      ref={line}
      aria-hidden
      sx={{
        position: 'absolute',
        top: -2,
        bottom: -2,
        left: 0,
        right: 0,
        pointerEvents: 'none',
        willChange: 'transform',
      }}
    >
      <Box sx={{ height: '100%', width: 0, borderLeft: '2px solid #fff', outline: `1px solid ${palette.haw}` }} />
    </Box>
  )
}
