'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Checkbox from '@mui/material/Checkbox'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import FormControlLabel from '@mui/material/FormControlLabel'
import LinearProgress from '@mui/material/LinearProgress'
import Typography from '@mui/material/Typography'
import { useEffect, useRef, useState } from 'react'
import { encode } from 'uqr'
import type { Render } from '@/core/model/render'
import { explain, quietly } from '@/diagnostics/note'
import { formatBytes, formatDuration } from '@/ui/format'
import { fonts, palette, textSize } from '@/ui/theme'
import { closePickUpNow, offerToPhone, openPickUpNow, type PickUpTold } from './pickUpClient'

/**
 * Chooses finished files, lays them ready for a phone, and shows the way there. What lies ready stays when the dialog
 * is closed, until its time is over.
 */
export function PickUpDialog({ finished, onClose }: { finished: readonly Render[]; onClose: () => void }) {
  const [open, setOpen] = useState<PickUpTold | null>(null)
  const [share, setShare] = useState<number | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set())
  const abort = useRef<AbortController | null>(null)
  useEffect(() => {
    let live = true
    openPickUpNow().then(
      (now) => live && setOpen(now),
      () => {},
    )
    return () => {
      live = false
      abort.current?.abort()
    }
  }, [])
  const chosen = finished.filter((r) => !left.has(r.id))
  const bytes = chosen.reduce((sum, r) => sum + (r.state.kind === 'finished' ? r.state.file.sizeBytes : 0), 0)
  const start = async () => {
    setProblem(null)
    setShare(0)
    abort.current = new AbortController()
    try {
      setOpen(await offerToPhone(chosen, setShare, abort.current.signal))
    } catch (error) {
      if (!abort.current.signal.aborted) setProblem(explain('the pick-up', error))
    } finally {
      setShare(null)
    }
  }
  const close = async () => {
    await closePickUpNow().catch(quietly('the pick-up'))
    setOpen(null)
  }
  return (
    <Dialog open onClose={onClose} maxWidth="sm" fullWidth>
      <DialogTitle>To the phone</DialogTitle>
      <DialogContent>
        {open ? (
          <Ready open={open} />
        ) : (
          <>
            <Typography sx={{ fontSize: textSize.body, color: palette.inkSoft, mb: 2 }}>
              A phone on the same network can then look at these files, save or share them, for half an hour, with a
              code. Nothing leaves your network.
            </Typography>
            <Box
              role="group"
              aria-label="Files for the phone"
              sx={{ display: 'grid', maxHeight: 320, overflowY: 'auto' }}
            >
              {finished.map((render) => (
                <FormControlLabel
                  key={render.id}
                  control={
                    <Checkbox
                      size="small"
                      checked={!left.has(render.id)}
                      onChange={(_, on) =>
                        setLeft((all) => new Set(on ? [...all].filter((id) => id !== render.id) : [...all, render.id]))
                      }
                    />
                  }
                  label={render.state.kind === 'finished' ? render.state.file.fileName : ''}
                  slotProps={{ typography: { noWrap: true } }}
                />
              ))}
            </Box>
            {share !== null && (
              <LinearProgress
                variant="determinate"
                value={share * 100}
                aria-label="Laying files ready"
                sx={{ mt: 2 }}
              />
            )}
            {problem && (
              <Typography role="alert" sx={{ mt: 2, fontSize: textSize.body, color: palette.haw }}>
                {problem}. The files are still here.
              </Typography>
            )}
          </>
        )}
      </DialogContent>
      <DialogActions>
        {open ? (
          <>
            <Button onClick={() => void close()}>Close the pick-up</Button>
            <Button variant="contained" color="primary" onClick={onClose}>
              Done
            </Button>
          </>
        ) : (
          <>
            <Button onClick={onClose}>Not now</Button>
            <Button
              variant="contained"
              color="primary"
              disabled={chosen.length === 0 || share !== null}
              onClick={() => void start()}
            >
              Lay {chosen.length} ready, {formatBytes(bytes)}
            </Button>
          </>
        )}
      </DialogActions>
    </Dialog>
  )
}

/** The way to what lies ready: a picture to point the phone at, or an address and a code to type. */
function Ready({ open: { code, addresses, expiresAt, files } }: { open: PickUpTold }) {
  const [now, setNow] = useState(() => Date.now())
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 1000)
    return () => clearInterval(timer)
  }, [])
  const left = (expiresAt - now) / 1000
  const [address = ''] = addresses
  return (
    <Box sx={{ display: 'flex', gap: 6, alignItems: 'center' }}>
      <QrPicture text={`${address}/c/${code}`} />
      <Box sx={{ minWidth: 0 }}>
        <Typography sx={{ fontSize: textSize.body, color: palette.inkSoft }}>
          Point the phone’s camera at it, or open
        </Typography>
        {addresses.map((a) => (
          <Box key={a} sx={{ fontFamily: fonts.numbers, fontSize: textSize.lead, my: 0.5, userSelect: 'all' }}>
            {a}
          </Box>
        ))}
        <Typography sx={{ mt: 3, fontSize: textSize.body, color: palette.inkSoft }}>and type the code</Typography>
        <Box
          aria-label="Code"
          sx={{ fontFamily: fonts.numbers, fontSize: 26, fontWeight: 700, letterSpacing: '0.12em', userSelect: 'all' }}
        >
          {code.slice(0, 4)} {code.slice(4)}
        </Box>
        <Typography sx={{ mt: 3, fontSize: textSize.body, color: left > 0 ? palette.inkSoft : palette.haw }}>
          {left > 0
            ? `${files.length} ${files.length === 1 ? 'file' : 'files'}, for ${formatDuration(left)} more`
            : 'The time is over: the files are no longer there.'}
        </Typography>
        {addresses.every((a) => a.includes('127.0.0.1')) && (
          <Typography sx={{ mt: 1, fontSize: textSize.note, color: palette.haw }}>
            This machine is on no network that a phone could be on.
          </Typography>
        )}
      </Box>
    </Box>
  )
}

function QrPicture({ text }: { text: string }) {
  const { data, size } = encode(text, { ecc: 'M', border: 2 })
  const path = data.flatMap((row, y) => row.flatMap((dark, x) => (dark ? [`M${x} ${y}h1v1h-1z`] : []))).join('')
  return (
    <Box
      component="svg"
      viewBox={`0 0 ${size} ${size}`}
      role="img"
      aria-label="QR picture of the address with the code"
      shapeRendering="crispEdges"
      sx={{ width: 220, height: 220, flex: 'none', bgcolor: '#fff', borderRadius: 1 }}
    >
      <path d={path} fill={palette.ink} />
    </Box>
  )
}
