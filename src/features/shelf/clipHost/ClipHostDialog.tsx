'use client'

import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import LinearProgress from '@mui/material/LinearProgress'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import Typography from '@mui/material/Typography'
import { useLiveQuery } from 'dexie-react-hooks'
import { useState, type FormEvent } from 'react'
import { recordingsOnShelf } from '@/store/recordings'
import { CheckRow } from '@/ui/CheckRow'
import { formatBytes, formatDay } from '@/ui/format'
import { palette, textSize } from '@/ui/theme'
import { toggled } from '@/ui/toggled'
import type { TakenIn } from '../takeIn'
import { CLIP_MESSAGES, type ClipHost, type HostedClip } from './clipHost'
import { ClipStandIn } from './ClipStandIn'
import { useClipHost } from './useClipHost'
import { wording } from '../wording'

interface ClipHostDialogProps {
  host: ClipHost
  /** What is told of each clip that was taken in. */
  onTakenIn: (taken: TakenIn) => void
  onClose: () => void
}

/** Clips from a host, by month or by address, onto the Shelf. */
export function ClipHostDialog({ host, onTakenIn, onClose }: ClipHostDialogProps) {
  const { listed, look, getting, get, cancel, problem } = useClipHost(host, onTakenIn)
  const shelf = useLiveQuery(recordingsOnShelf, [])
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set())
  const [address, setAddress] = useState('')
  const isHere = ({ title, sizeBytes }: HostedClip) =>
    shelf?.some((r) => r.name === title && r.sizeBytes === sizeBytes) ?? false
  const busy = getting !== null
  const getChosen = async () => setChosen(new Set(await get([...chosen])))
  const getAddress = async (event: FormEvent) => {
    event.preventDefault()
    if (address.trim() !== '' && (await get([address.trim()])).length === 0) setAddress('')
  }
  return (
    <Dialog open onClose={busy ? undefined : onClose} fullWidth maxWidth="sm">
      <DialogTitle>{wording.fromAClipHost}</DialogTitle>
      <ClipStandIn onChanged={look} />
      <DialogContent sx={{ display: 'grid', gap: 4 }}>
        {problem && <Alert severity="error">{CLIP_MESSAGES[problem]}</Alert>}
        <Box
          component="form"
          onSubmit={(e) => void getAddress(e)}
          sx={{ display: 'flex', gap: 2, alignItems: 'center', pt: 1 }}
        >
          <TextField
            size="small"
            fullWidth
            label={wording.addressOfAClip}
            placeholder={wording.httpsClipsExample}
            value={address}
            onChange={(e) => setAddress(e.target.value)}
            slotProps={{ htmlInput: { maxLength: 2000 } }}
          />
          <Button type="submit" disabled={busy || address.trim() === ''}>
            {wording.getIt}
          </Button>
        </Box>
        {listed && (
          <Box>
            <Box sx={{ display: 'flex', alignItems: 'center', gap: 3, mb: 1 }}>
              <TextField
                select
                size="small"
                label={wording.month}
                value={listed.month}
                disabled={busy}
                onChange={(e) => (setChosen(new Set()), look(e.target.value))}
                sx={{ width: 190 }}
              >
                {listed.months.map((month) => (
                  <MenuItem key={month} value={month}>
                    {new Date(`${month}-15`).toLocaleDateString('en-GB', { month: 'long', year: 'numeric' })}
                  </MenuItem>
                ))}
              </TextField>
              <Typography sx={{ fontSize: textSize.body, color: palette.inkSoft }}>
                {listed.clips.length === 1 ? wording.n1Clip : wording.clips(listed.clips.length)}
              </Typography>
            </Box>
            <Box role="list" aria-label={wording.clipsCapital} sx={{ maxHeight: 260, overflowY: 'auto' }}>
              {listed.clips.map((clip) => (
                <CheckRow
                  key={clip.address}
                  name={clip.title}
                  note={`${isHere(clip) ? wording.onTheShelf : ''}${formatDay(clip.recordedAt)} · ${formatBytes(clip.sizeBytes)}`}
                  disabled={busy}
                  checked={chosen.has(clip.address)}
                  onChange={() => setChosen((known) => toggled(known, clip.address))}
                />
              ))}
            </Box>
          </Box>
        )}
        {getting && (
          <Box>
            <Typography role="status" sx={{ fontSize: textSize.body, mb: 1 }}>
              {wording.gettingOf(getting.n, getting.of)}
            </Typography>
            <LinearProgress variant="determinate" value={getting.share * 100} aria-label={wording.howMuchOfThisClip} />
          </Box>
        )}
      </DialogContent>
      <DialogActions>
        {busy ? <Button onClick={cancel}>{wording.cancel}</Button> : <Button onClick={onClose}>{wording.close}</Button>}
        <Button
          variant="contained"
          color="primary"
          disabled={busy || chosen.size === 0}
          onClick={() => void getChosen()}
        >
          {chosen.size > 0 ? wording.addToTheShelf(chosen.size) : wording.addToTheShelfCapital}
        </Button>
      </DialogActions>
    </Dialog>
  )
}
