'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import Typography from '@mui/material/Typography'
import { useState } from 'react'
import { format, isValid, parse } from 'date-fns'
import type { OutletId, RenderId } from '@/core/model/ids'
import type { Outlet } from '@/core/model/outlet'
import type { Post } from '@/core/model/post'
import type { NewPost } from '@/store/posts'
import { formatBytes } from '@/ui/format'
import { palette, textSize } from '@/ui/theme'
import type { PostableFile } from './weekData'
import { stateWords } from './weekWords'
import { wording } from '../wording'

export interface Draft {
  /** Null: a new one. */
  post: Post | null
  outletId: OutletId | null
  dueAt: Date
}

const FIELD_TIME = "yyyy-MM-dd'T'HH:mm"

interface Props {
  draft: Draft
  outlets: readonly Outlet[]
  files: readonly PostableFile[]
  onClose: () => void
  onKeep: (made: NewPost) => void
  onRemove: (post: Post) => void
}

/** What goes where, when, and with which words; held to what the outlet takes. */
export function PostDialog({ draft, outlets, files, onClose, onKeep, onRemove }: Props) {
  const { post } = draft
  const [renderId, setRenderId] = useState<RenderId | null>(post?.renderId ?? files[0]?.id ?? null)
  const [outletId, setOutletId] = useState<OutletId | null>(draft.outletId)
  const [due, setDue] = useState(format(draft.dueAt, FIELD_TIME))
  const [title, setTitle] = useState(post?.title ?? files[0]?.edit.highlight.name ?? '')
  const [text, setText] = useState(post?.text ?? '')
  const file = files.find((f) => f.id === renderId)
  const outlet = outlets.find((o) => o.id === outletId)
  const dueAt = parse(due, FIELD_TIME, new Date())
  const isSent = post?.state.kind === 'posted' || post?.state.kind === 'sending'
  const [titleRoom, textRoom] = [(outlet?.mostTitle ?? 100) - title.length, (outlet?.mostText ?? 2200) - text.length]
  const tooLarge = file && file.state.file.sizeBytes > (outlet?.largestBytes ?? Infinity)
  const otherShape = file && outlet && file.shape.width * outlet.shape.height !== file.shape.height * outlet.shape.width
  const ready =
    file && outlet && isValid(dueAt) && title.trim() !== '' && titleRoom >= 0 && textRoom >= 0 && !tooLarge && !isSent
  const room = (left: number) => (left >= 0 ? wording.lettersLeft(left) : wording.lettersTooManyFor(left, outlet?.name))
  const choose = (id: RenderId) => {
    const chosen = files.find((f) => f.id === id)
    if (title === (file?.edit.highlight.name ?? '') && chosen) setTitle(chosen.edit.highlight.name)
    setRenderId(id)
  }
  const fileHelp = () => {
    if (tooLarge)
      return wording.takesAtMost(
        formatBytes(file.state.file.sizeBytes),
        outlet?.name,
        formatBytes(outlet?.largestBytes ?? 0),
      )
    return otherShape ? wording.itIsShows(file.shape.id, outlet.name, outlet.shape.id) : undefined
  }
  return (
    <Dialog open onClose={onClose} maxWidth="xs" fullWidth>
      <DialogTitle>{post ? wording.post : wording.planAPost}</DialogTitle>
      <DialogContent sx={{ display: 'grid', gap: 4, pt: '8px !important' }}>
        {post && (
          <Typography
            sx={{ fontSize: textSize.body, color: post.state.kind === 'failed' ? palette.haw : palette.inkSoft }}
          >
            {wording.thisPost(stateWords(post))}
            {post.state.kind === 'failed' && post.state.detail && wording.itSaid(post.state.detail)}
          </Typography>
        )}
        <TextField
          select
          size="small"
          label={wording.file}
          value={file ? renderId : ''}
          disabled={isSent}
          onChange={(e) => choose(e.target.value as RenderId)}
          error={Boolean(tooLarge)}
          helperText={fileHelp()}
        >
          {files.map((f) => (
            <MenuItem key={f.id} value={f.id}>
              {f.state.file.fileName}
            </MenuItem>
          ))}
        </TextField>
        <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1.35fr', gap: 4 }}>
          <TextField
            select
            size="small"
            label={wording.outlet}
            value={outletId ?? ''}
            disabled={isSent}
            onChange={(e) => setOutletId(e.target.value as OutletId)}
          >
            {outlets.map((o) => (
              <MenuItem key={o.id} value={o.id}>
                {o.name}
              </MenuItem>
            ))}
          </TextField>
          <TextField
            size="small"
            type="datetime-local"
            label={wording.when}
            value={due}
            disabled={isSent}
            error={!isValid(dueAt)}
            onChange={(e) => setDue(e.target.value)}
            slotProps={{ inputLabel: { shrink: true }, htmlInput: { style: { fontSize: textSize.body } } }}
          />
        </Box>
        <TextField
          size="small"
          label={wording.title}
          value={title}
          disabled={isSent}
          error={titleRoom < 0}
          helperText={room(titleRoom)}
          onChange={(e) => setTitle(e.target.value)}
          slotProps={{ htmlInput: { maxLength: 300 } }}
        />
        <TextField
          size="small"
          label={wording.text}
          multiline
          minRows={3}
          maxRows={8}
          value={text}
          disabled={isSent}
          error={textRoom < 0}
          helperText={room(textRoom)}
          onChange={(e) => setText(e.target.value)}
          slotProps={{ htmlInput: { maxLength: 5000 } }}
        />
      </DialogContent>
      <DialogActions>
        {post && !isSent && <Button onClick={() => onRemove(post)}>{wording.takeOutOfThePlan}</Button>}
        <Box sx={{ flex: 1 }} />
        <Button onClick={onClose}>{isSent ? wording.close : wording.notNow}</Button>
        {!isSent && (
          <Button
            variant="contained"
            color="primary"
            disabled={!ready}
            onClick={() =>
              file &&
              outlet &&
              onKeep({ renderId: file.id, outletId: outlet.id, dueAt: dueAt.toISOString(), title: title.trim(), text })
            }
          >
            {keepWords(post)}
          </Button>
        )}
      </DialogActions>
    </Dialog>
  )
}

function keepWords(post: Post | null): string {
  if (!post) return wording.planIt
  return post.state.kind === 'failed' ? wording.tryAgain : wording.keep
}
