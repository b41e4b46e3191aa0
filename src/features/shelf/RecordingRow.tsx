'use client'

import DeleteOutlineIcon from '@mui/icons-material/DeleteOutlined'
import EditOutlinedIcon from '@mui/icons-material/EditOutlined'
import Box from '@mui/material/Box'
import ButtonBase from '@mui/material/ButtonBase'
import IconButton from '@mui/material/IconButton'
import Tooltip from '@mui/material/Tooltip'
import Typography from '@mui/material/Typography'
import Link from 'next/link'
import { memo, useState } from 'react'
import { title } from '@/core/model/record'
import { renameRecording } from '@/store/recordings'
import { formatBytes, formatTime, formatVideo } from '@/ui/format'
import { fonts, iconSize, palette, textSize } from '@/ui/theme'
import { TextInPlace } from '@/ui/TextInPlace'
import { useOffer } from '@/ui/useOffer'
import { HighlightPoster } from './HighlightPoster'
import { acceptResemblance } from '@/shared/looks/answerQuestion'
import { RecordingQuestion } from '@/shared/looks/QuestionRow'
import { rejectResemblance } from '@/store/resemblances'
import { noticeMessages } from '@/shared/recordings/wording'
import { RecordingStrip } from './RecordingStrip'
import type { ShelfHighlight, ShelfRow } from './useShelf'
import { wording } from './wording'

export interface RowActions {
  cut: (row: ShelfRow) => Promise<void>
  binRecording: (row: ShelfRow) => Promise<void>
  binHighlight: (item: ShelfHighlight) => Promise<void>
}

/**
 * One recording: its pictures, what it is, and what has been cut from it. Drawn anew when something of it has
 * changed: a Shelf may have hundreds.
 */
export const RecordingRow = memo(Row, (before, now) => before.actions === now.actions && isSame(before.row, now.row))

/** Whether two readings of a row are of one state; every change to a record moves its `updatedAt` on. */
function isSame(a: ShelfRow, b: ShelfRow): boolean {
  const stateOf = ({ recording, highlights, setupName, question }: ShelfRow) =>
    [
      recording.id,
      recording.updatedAt,
      setupName,
      question?.setup.id,
      ...highlights.flatMap(({ highlight, files }) => [highlight.id, highlight.updatedAt, files]),
    ].join('\n')
  return stateOf(a) === stateOf(b)
}

function Row({ row, actions }: { row: ShelfRow; actions: RowActions }) {
  const { recording, highlights, setupName, question } = row
  const offer = useOffer()
  const [renaming, setRenaming] = useState(false)
  const rename = async (text: string) => {
    const name = title.safeParse(text)
    if (!name.success) return
    await renameRecording(recording.id, name.data)
    offer({
      words: wording.renamedTo(name.data),
      button: wording.undo,
      act: () => void renameRecording(recording.id, recording.name),
    })
  }
  return (
    <Box
      component="article"
      aria-label={recording.name}
      sx={{
        display: 'grid',
        gridTemplateColumns: 'minmax(300px, min(600px, 48.5%)) minmax(190px, 230px) 1fr',
        columnGap: 4,
        alignItems: 'center',
        px: 4.5,
        py: 2.5,
        borderBottom: 1,
        borderColor: 'divider',
        '&:hover .row-bin, &:focus-within .row-bin': { opacity: 1 },
      }}
    >
      <Tooltip title={wording.findMoments} followCursor>
        <Box
          component={Link}
          href={`/recording/${encodeURIComponent(recording.id)}`}
          aria-label={wording.findMomentsIn(recording.name)}
          sx={{ display: 'block', minWidth: 0 }}
        >
          <RecordingStrip recording={recording} />
        </Box>
      </Tooltip>
      <Box sx={{ minWidth: 0 }}>
        {renaming ? (
          <TextInPlace
            label={wording.nameOf(recording.name)}
            value={recording.name}
            strong
            autoFocus
            onSet={(text) => void rename(text)}
            onLeft={() => setRenaming(false)}
          />
        ) : (
          <Typography component="h3" noWrap title={recording.name} sx={{ fontWeight: 700, fontSize: textSize.lead }}>
            {recording.name}
          </Typography>
        )}
        <Box sx={{ fontFamily: fonts.numbers, fontSize: textSize.small, color: palette.inkSoft, whiteSpace: 'nowrap' }}>
          {formatTime(recording.durationMicros, 0)} · {formatVideo(recording.video)} ·{' '}
          {formatBytes(recording.sizeBytes)}
        </Box>
        <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, mt: 0.5, minHeight: 24 }}>
          <Typography noWrap sx={{ fontSize: textSize.note, color: palette.inkSoft, minWidth: 0 }}>
            {setupName ?? wording.noRegionsYet}
          </Typography>
          <Tooltip title={wording.rename}>
            <IconButton
              className="row-bin"
              aria-label={wording.renameOfName(recording.name)}
              onClick={() => setRenaming(true)}
              sx={{ p: '3px', opacity: 0 }}
            >
              <EditOutlinedIcon sx={{ fontSize: iconSize.small }} />
            </IconButton>
          </Tooltip>
          <Tooltip title={wording.moveToTheBinCapital}>
            <IconButton
              className="row-bin"
              aria-label={wording.moveToTheBin(recording.name)}
              onClick={() => void actions.binRecording(row)}
              sx={{ p: '3px', opacity: 0 }}
            >
              <DeleteOutlineIcon sx={{ fontSize: iconSize.small }} />
            </IconButton>
          </Tooltip>
        </Box>
        {question && (
          <RecordingQuestion
            question={question}
            onYes={() => void acceptResemblance(question)}
            onNo={() => void rejectResemblance(recording.id)}
          />
        )}
        {noticeMessages(recording).map((message) => (
          <Typography key={message} sx={{ fontSize: textSize.note, color: palette.strawInk }}>
            {message}
          </Typography>
        ))}
      </Box>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1.5, alignItems: 'flex-start' }}>
        {highlights.map((item) => (
          <HighlightPoster key={item.highlight.id} item={item} onBin={() => void actions.binHighlight(item)} />
        ))}
        <Tooltip title={wording.cutAHighlight}>
          <ButtonBase
            aria-label={wording.cutAHighlightFrom(recording.name)}
            onClick={() => void actions.cut(row)}
            sx={{
              width: 40,
              height: 71,
              ml: '3px',
              border: `1px dashed ${palette.inkSoft}`,
              borderRadius: '2px',
              fontFamily: fonts.text,
              fontSize: textSize.note,
              color: palette.inkSoft,
              '&:hover': { color: palette.leaf, borderColor: palette.leaf, bgcolor: palette.leafTint },
            }}
          >
            {wording.cut}
          </ButtonBase>
        </Tooltip>
      </Box>
    </Box>
  )
}
