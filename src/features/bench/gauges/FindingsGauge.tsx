'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import ButtonBase from '@mui/material/ButtonBase'
import { useEffect, useState } from 'react'
import { isSafe, type Finding } from '@/core/findings/finding'
import { formatTime } from '@/ui/format'
import { Ticket } from '@/ui/Ticket'
import { fonts, palette, textSize } from '@/ui/theme'
import { acceptFinding } from '@/edit/highlight'
import { useBenchContext, useView } from '../benchContext'
import { countWords, faultWords, putRightLines, remedyWords } from '@/shared/findingWords'
import { SEVERITY_COLOURS } from './FoundMarks'
import { GaugeButton } from './GaugeButton'
import { putAllRight, putRight } from './remedies'
import type { Looked } from './useFindings'
import { useReport } from './useReport'
import { wording } from './wording'

/** How many faults there are, and the list of them: where and when each is, what would put it right. */
export function FindingsGauge() {
  const { view } = useBenchContext()
  const looked = useView((v) => v.looked)
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  const worst = looked?.findings[0]?.severity
  const counts = looked && countWords(looked.findings.map((f) => f.severity))
  const close = () => {
    setAnchor(null)
    view.setState({ pointedAt: null })
  }
  return (
    <>
      <GaugeButton
        figure={counts ?? wording.lookingOver}
        words={wording.foundLowercase}
        colour={worst && SEVERITY_COLOURS[worst]}
        isStale={looked?.stale ?? true}
        onOpen={setAnchor}
      />
      {anchor && looked && (
        <Ticket label={wording.whatWasFound} anchor={anchor} onClose={close} side="center" width={560} gap={1}>
          <Findings looked={looked} />
        </Ticket>
      )}
    </>
  )
}

function Findings({ looked }: { looked: Looked }) {
  const { findings, accepted } = looked
  const { session } = useBenchContext()
  const save = useReport(looked)
  const outlet = useView((v) => v.outlet)
  const [done, setDone] = useState<readonly Finding[]>([])
  const curable = findings.filter((f) => f.remedy && isSafe(f.remedy))
  return (
    <>
      <Box
        sx={{
          display: 'flex',
          alignItems: 'center',
          justifyContent: 'space-between',
          gap: 2,
          fontSize: textSize.note,
          color: palette.inkSoft,
        }}
      >
        <span>
          {findings.length === 0 ? wording.nothingToPutRightCapital : wording.worstFirst}
          {accepted.length > 0 && wording.meantSoOfCount(accepted.length)}.{' '}
          {outlet ? wording.lookedAtForOfName(outlet.name) : wording.chooseWhoseZonesAreShown}
        </span>
        {curable.length > 0 && (
          <Button
            onClick={() => {
              setDone(putAllRight(session, findings))
            }}
          >
            {wording.fixAll}
          </Button>
        )}
      </Box>
      {done.length > 0 && (
        <Box
          role="status"
          sx={{
            fontSize: textSize.note,
            bgcolor: palette.leafTint,
            px: 2,
            py: 1.5,
            borderRadius: '3px',
            maxHeight: 130,
            overflowY: 'auto',
          }}
        >
          <b>{wording.putRightInOneStep(done.length)}</b>
          {putRightLines(done).map((line) => (
            <Box key={line}>{line}</Box>
          ))}
        </Box>
      )}
      <Box
        component="ul"
        aria-label={wording.findingsCapital}
        sx={{ m: 0, p: 0, listStyle: 'none', maxHeight: 380, overflowY: 'auto' }}
      >
        {findings.map((finding) => (
          <FindingLine key={finding.key} finding={finding} />
        ))}
      </Box>
      <Box
        sx={{
          display: 'flex',
          gap: 1.5,
          alignItems: 'center',
          fontSize: textSize.note,
          color: palette.inkSoft,
          borderTop: 1,
          borderColor: 'divider',
          pt: 2,
        }}
      >
        <span style={{ flex: 1 }}>{wording.whatWasFoundToKeep}</span>
        <Button onClick={() => void save('page')}>{wording.saveAsPage}</Button>
        <Button onClick={() => void save('json')}>{wording.saveAsJson}</Button>
      </Box>
    </>
  )
}

function FindingLine({ finding }: { finding: Finding }) {
  const { session, player, view } = useBenchContext()
  const { severity, fault, shapeId, fromMicros, remedy } = finding
  const show = () => {
    view.setState({ pointedAt: finding })
    player.seek(fromMicros)
  }
  // What has been put right is not pointed at any more.
  useEffect(
    () => () => view.setState((v) => (v.pointedAt?.key === finding.key ? { pointedAt: null } : v)),
    [view, finding.key],
  )
  return (
    <Box
      component="li"
      data-severity={severity}
      sx={{
        display: 'grid',
        gridTemplateColumns: 'minmax(0, 1fr) auto',
        columnGap: 2,
        alignItems: 'center',
        py: 1.5,
        borderTop: 1,
        borderColor: 'divider',
      }}
    >
      <ButtonBase
        onClick={show}
        title={wording.showWhereAndWhen}
        sx={{
          display: 'block',
          textAlign: 'left',
          font: 'inherit',
          borderLeft: `3px solid ${SEVERITY_COLOURS[severity]}`,
          pl: 2,
          minWidth: 0,
          '&:focus-visible': { outline: `2px solid ${palette.leaf}` },
        }}
      >
        <Box sx={{ fontSize: textSize.body, fontWeight: 600, overflowWrap: 'anywhere' }}>{faultWords(fault)}</Box>
        <Box sx={{ fontFamily: fonts.numbers, fontSize: textSize.small, color: palette.inkSoft }}>
          {wording.from(shapeId, formatTime(fromMicros))}
        </Box>
      </ButtonBase>
      <Box sx={{ display: 'flex', gap: 1 }}>
        {remedy && <Button onClick={() => putRight(session, finding)}>{remedyWords(remedy)}</Button>}
        <Button title={wording.quietUntilItChanges} onClick={() => acceptFinding(session, { finding })}>
          {wording.meantSo}
        </Button>
      </Box>
    </Box>
  )
}
