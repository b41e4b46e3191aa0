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
import { wording } from './wording'

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
      <DialogTitle>{wording.toThePhone}</DialogTitle>
      <DialogContent>
        {open ? (
          <Ready open={open} />
        ) : (
          <>
            <Typography sx={{ fontSize: textSize.body, color: palette.inkSoft, mb: 2 }}>
              {wording.aPhoneOnTheSame}
            </Typography>
            <Box
              role="group"
              aria-label={wording.filesForThePhone}
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
                aria-label={wording.layingFilesReady}
                sx={{ mt: 2 }}
              />
            )}
            {problem && (
              <Typography role="alert" sx={{ mt: 2, fontSize: textSize.body, color: palette.haw }}>
                {wording.theFilesAreStillHere(problem)}
              </Typography>
            )}
          </>
        )}
      </DialogContent>
      <DialogActions>
        {open ? (
          <>
            <Button onClick={() => void close()}>{wording.closeThePickUp}</Button>
            <Button variant="contained" color="primary" onClick={onClose}>
              {wording.done}
            </Button>
          </>
        ) : (
          <>
            <Button onClick={onClose}>{wording.notNow}</Button>
            <Button
              variant="contained"
              color="primary"
              disabled={chosen.length === 0 || share !== null}
              onClick={() => void start()}
            >
              {wording.layReady(chosen.length, formatBytes(bytes))}
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
          {wording.pointThePhonesCameraAt}
        </Typography>
        {addresses.map((a) => (
          <Box key={a} sx={{ fontFamily: fonts.numbers, fontSize: textSize.lead, my: 0.5, userSelect: 'all' }}>
            {a}
          </Box>
        ))}
        <Typography sx={{ mt: 3, fontSize: textSize.body, color: palette.inkSoft }}>
          {wording.andTypeTheCode}
        </Typography>
        <Box
          aria-label={wording.code}
          sx={{ fontFamily: fonts.numbers, fontSize: 26, fontWeight: 700, letterSpacing: '0.12em', userSelect: 'all' }}
        >
          {code.slice(0, 4)} {code.slice(4)}
        </Box>
        <Typography sx={{ mt: 3, fontSize: textSize.body, color: left > 0 ? palette.inkSoft : palette.haw }}>
          {left > 0 ? wording.forMore(files.length, formatDuration(left)) : wording.theTimeIsOverThe}
        </Typography>
        {addresses.every((a) => a.includes('127.0.0.1')) && (
          <Typography sx={{ mt: 1, fontSize: textSize.note, color: palette.haw }}>
            {wording.thisMachineIsOnNo}
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
      aria-label={wording.qrPictureOfTheAddress}
      shapeRendering="crispEdges"
      sx={{ width: 220, height: 220, flex: 'none', bgcolor: '#fff', borderRadius: 1 }}
    >
      <path d={path} fill={palette.ink} />
    </Box>
  )
}
