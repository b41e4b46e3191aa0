'use client'

import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import ButtonBase from '@mui/material/ButtonBase'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import type { ShortHandle } from '@/core/cut/handles'
import { direction, easing, JOIN_KINDS, joinAs, joinLength, joinWithin, type Join } from '@/core/model/join'
import type { Passage } from '@/core/model/passage'
import { MICROS_PER_SECOND } from '@/core/time/micros'
import { SecondsField } from '@/ui/SecondsField'
import { fonts, palette, textSize } from '@/ui/theme'
import { Ticket } from '@/ui/Ticket'
import { setAllJoins, setJoin, setJoinTiming, setSpeed, slipPassage } from '@/edit/passages'
import { useBenchContext, useHighlight } from '../benchContext'
import { JOIN_HEIGHT } from './sheetLayout'
import { wording } from './wording'

export const EASING_NAMES = { even: wording.even, soft: wording.softStartAndEnd, late: wording.lateAndFast } as const

/** A join in words: `cut`, `push up 0.40 s`. */
export function joinWords(join: Join): string {
  if (join.kind === 'cut') return 'cut'
  const toward = join.kind === 'push' || join.kind === 'slide' ? ` ${join.direction}` : ''
  const name = join.kind === 'dip' ? wording.dipTo(join.colour) : join.kind
  return `${name}${toward} ${(joinLength(join) / MICROS_PER_SECOND).toFixed(2)} s`
}

/** What lies between two passages: how one passes into the next, and what is missing for it. */
export function JoinStrip({ index, shortages }: { index: number; shortages: readonly ShortHandle[] }) {
  const { passages } = useHighlight()
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  const before = passages[index]
  const after = passages[index + 1]
  if (!before || !after) return null
  const words = joinWords(before.join)
  const missing = Math.max(0, ...shortages.map((s) => s.missingFrames))
  return (
    <Box
      sx={{
        height: JOIN_HEIGHT,
        display: 'flex',
        alignItems: 'center',
        justifyContent: 'center',
        bgcolor: palette.paper,
      }}
    >
      <ButtonBase
        aria-label={wording.joinOfPassagesAnd(index, words, missing)}
        aria-haspopup="dialog"
        onPointerDown={(e) => e.stopPropagation()}
        onClick={(e) => setAnchor(e.currentTarget)}
        sx={{
          px: 2.5,
          height: 20,
          gap: 2,
          border: 1,
          borderRadius: '10px',
          borderColor: missing > 0 ? palette.straw : 'divider',
          bgcolor: 'background.paper',
          fontFamily: fonts.numbers,
          fontSize: textSize.small,
          color: missing > 0 ? palette.strawInk : palette.inkSoft,
          '&:hover': { borderColor: palette.inkSoft },
        }}
      >
        {words}
        {missing > 0 && <b>{wording.framesShort(missing)}</b>}
      </ButtonBase>
      {anchor && (
        <JoinTicket
          before={before}
          after={after}
          shortages={shortages}
          anchor={anchor}
          onClose={() => setAnchor(null)}
        />
      )}
    </Box>
  )
}

interface JoinTicketProps {
  before: Passage
  after: Passage
  shortages: readonly ShortHandle[]
  anchor: HTMLElement
  onClose: () => void
}

function JoinTicket({ before, after, shortages, anchor, onClose }: JoinTicketProps) {
  const { session } = useBenchContext()
  const { joinTiming } = useHighlight()
  const { id, join } = before
  const set = (to: Join, gesture: string = crypto.randomUUID()) => setJoin(session, { id, join: to }, gesture)
  return (
    <Ticket label={wording.join} anchor={anchor} onClose={onClose} side="center" width={340} gap={2.5}>
      <Box
        role="group"
        aria-label={wording.kindOfJoin}
        sx={{ display: 'grid', gridTemplateColumns: 'repeat(5, auto)', gap: 1 }}
      >
        {JOIN_KINDS.map((kind) => (
          <Button
            key={kind}
            aria-pressed={join.kind === kind}
            onClick={() => set(joinAs(join, kind))}
            sx={{
              minWidth: 0,
              px: 1.5,
              ...(join.kind === kind && { '&&': { bgcolor: palette.leafTint, borderColor: palette.leaf } }),
            }}
          >
            {kind}
          </Button>
        ))}
      </Box>
      {join.kind !== 'cut' && (
        <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 2 }}>
          {(join.kind === 'push' || join.kind === 'slide') && (
            <TextField
              select
              size="small"
              label={wording.moves}
              value={join.direction}
              onChange={(e) => set({ ...join, direction: direction.parse(e.target.value) })}
            >
              {direction.options.map((d) => (
                <MenuItem key={d} value={d}>
                  {d}
                </MenuItem>
              ))}
            </TextField>
          )}
          {join.kind === 'dip' && (
            <TextField
              type="color"
              size="small"
              label={wording.colour}
              value={join.colour}
              onChange={(e) => set({ ...join, colour: e.target.value }, `colour ${id}`)}
            />
          )}
          {join.kind === 'push' && (
            <TextField
              select
              size="small"
              label={wording.whatMoves}
              value={join.within}
              onChange={(e) => set({ ...join, within: joinWithin.parse(e.target.value) })}
            >
              <MenuItem value="canvas">{wording.theWholePicture}</MenuItem>
              <MenuItem value="panel">{wording.eachPanelThatChanges}</MenuItem>
            </TextField>
          )}
          <TextField
            select
            size="small"
            label={wording.movement}
            value={join.easing}
            onChange={(e) => set({ ...join, easing: easing.parse(e.target.value) })}
          >
            {easing.options.map((e) => (
              <MenuItem key={e} value={e}>
                {EASING_NAMES[e]}
              </MenuItem>
            ))}
          </TextField>
          <Box sx={{ gridColumn: '1 / -1', display: 'grid', gridTemplateColumns: '1fr auto', alignItems: 'center' }}>
            <SecondsField
              label={wording.length}
              least={0.04}
              most={5}
              step={0.04}
              decimals={2}
              value={join.lengthMicros}
              onSet={(micros, gesture) => set({ ...join, lengthMicros: micros }, gesture)}
            />
          </Box>
        </Box>
      )}
      {shortages.map((shortage) => (
        <Shortage
          key={shortage.side}
          shortage={shortage}
          before={before}
          after={after}
          onShorten={(lengthMicros) =>
            set(join.kind === 'cut' || lengthMicros < 40_000 ? joinAs(join, 'cut') : { ...join, lengthMicros })
          }
        />
      ))}
      <TextField
        select
        size="small"
        label={wording.joinsAndTimeAllPassages}
        value={joinTiming}
        onChange={(e) => setJoinTiming(session, { timing: e.target.value === 'overlap' ? 'overlap' : 'hold' })}
        helperText={joinTiming === 'hold' ? wording.cutPointsStayWhereThe : wording.neighboursShareTheJoinsLength}
      >
        <MenuItem value="hold">{wording.cutPointsStay}</MenuItem>
        <MenuItem value="overlap">{wording.passagesOverlap}</MenuItem>
      </TextField>
      <Button onClick={() => setAllJoins(session, { join })}>{wording.useForAllJoins}</Button>
    </Ticket>
  )
}

function Shortage({
  shortage,
  before,
  after,
  onShorten,
}: {
  shortage: ShortHandle
  before: Passage
  after: Passage
  onShorten: (lengthMicros: number) => void
}) {
  const { session } = useBenchContext()
  const passage = shortage.side === 'after' ? before : after
  const { slipMicros, joinMicros, speedPercent, missingFrames } = shortage
  return (
    <Alert severity="warning" sx={{ '& .MuiAlert-message': { display: 'grid', gap: 2 } }}>
      {wording.missingTheRecordingThereAnd(missingFrames, shortage.side)}
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1 }}>
        {slipMicros !== null && (
          <Button onClick={() => slipPassage(session, { id: passage.id, by: slipMicros }, crypto.randomUUID())}>
            {wording.slipFrames(missingFrames)}
          </Button>
        )}
        <Button onClick={() => onShorten(joinMicros)}>
          {joinMicros < 40_000 ? wording.makeItACut : wording.shortenToS((joinMicros / MICROS_PER_SECOND).toFixed(2))}
        </Button>
        {speedPercent !== null && (
          <Button onClick={() => setSpeed(session, { id: passage.id, percent: speedPercent }, crypto.randomUUID())}>
            {wording.slowTo(speedPercent)}
          </Button>
        )}
      </Box>
    </Alert>
  )
}
