'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Typography from '@mui/material/Typography'
import { useLiveQuery } from 'dexie-react-hooks'
import { useSnackbar } from 'notistack'
import { useState } from 'react'
import { useStore } from 'zustand'
import type { Render } from '@/core/model/render'
import { estimate } from '@/core/output/estimate'
import { toSeconds } from '@/core/time/micros'
import { outputLength } from '@/core/time/timeMap'
import { note } from '@/diagnostics/note'
import { zipFiles } from '@/media/zip/zipFiles'
import { changeOutboxSettings, readOutboxSettings } from '@/store/outboxSettings'
import { formatDuration } from '@/ui/format'
import { offerDownload } from '@/ui/offerDownload'
import { fonts, palette, textSize } from '@/ui/theme'
import { SettingsDialog } from './SettingsDialog'
import { OutboxBar } from '@/shared/rendering/OutboxBar'
import { filesFolder, saveAllFinished } from '@/shared/rendering/filesFolder'
import { filesOf } from '@/shared/rendering/filesOf'
import { PickUpDialog } from './PickUpDialog'
import { HandOver } from './nodes/HandOver'
import { renderProgress } from '@/shared/rendering/progress'
import { wording } from './wording'

/** How far the queue is, what holds it, and where finished files go. */
export function QueueBar({ renders }: { renders: readonly Render[] }) {
  const settings = useLiveQuery(readOutboxSettings, [])
  const folder = useLiveQuery(filesFolder, [])
  const { enqueueSnackbar } = useSnackbar()
  const [choosing, setChoosing] = useState(false)
  const [pickingUp, setPickingUp] = useState(false)
  const [zipped, setZipped] = useState<number | null>(null)
  const finished = renders.filter((r) => r.state.kind === 'finished')
  const unsaved = finished.filter((r) => r.state.kind === 'finished' && r.state.file.savedAs === null)
  const waiting = renders.filter((r) => r.state.kind === 'waiting' || r.state.kind === 'running')
  const zip = async () => {
    setZipped(0)
    try {
      const files = (await Promise.all(finished.map(filesOf))).flat()
      offerDownload(await zipFiles(files, setZipped), `brimble ${new Date().toISOString().slice(0, 10)}.zip`)
    } catch (error) {
      note('writing a zip', error)
      enqueueSnackbar(wording.theZipCouldNotBe, {
        variant: 'error',
      })
    } finally {
      setZipped(null)
    }
  }
  const save = async () => {
    const { saved, left } = await saveAllFinished(unsaved)
    enqueueSnackbar(left === 0 ? wording.putInto(saved, folder?.name) : wording.couldNotBePutInto(left, folder?.name), {
      variant: left === 0 ? 'default' : 'error',
    })
  }
  return (
    <OutboxBar label={wording.queue}>
      <ToGo waiting={waiting} past={renders} held={settings?.held ?? false} />
      {(waiting.length > 0 || settings?.held) && (
        <Button onClick={() => void changeOutboxSettings({ held: !settings?.held })}>
          {settings?.held ? wording.goOn : wording.holdTheQueue}
        </Button>
      )}
      <HandOver waiting={renders.filter((r) => r.state.kind === 'waiting')} />
      <Box sx={{ flex: 1 }} />
      {folder && unsaved.length > 0 && (
        <Button onClick={() => void save()}>{wording.putIntoOfCount(unsaved.length, folder.name)}</Button>
      )}
      {finished.length > 1 && (
        <Button disabled={zipped !== null} onClick={() => void zip()}>
          {zipped === null ? wording.saveAsOneZip(finished.length) : wording.zipping(Math.round(zipped * 100))}
        </Button>
      )}
      {finished.length > 0 && <Button onClick={() => setPickingUp(true)}>{wording.toThePhoneButton}</Button>}
      <Button onClick={() => setChoosing(true)}>{wording.settings}</Button>
      {pickingUp && <PickUpDialog finished={finished} onClose={() => setPickingUp(false)} />}
      {choosing && settings && (
        <SettingsDialog settings={settings} folder={folder ?? null} onClose={() => setChoosing(false)} />
      )}
    </OutboxBar>
  )
}

function ToGo({ waiting, past, held }: { waiting: readonly Render[]; past: readonly Render[]; held: boolean }) {
  const progress = useStore(renderProgress)
  if (waiting.length === 0)
    return (
      <Typography sx={{ fontSize: textSize.body, color: palette.inkSoft }}>
        {held ? wording.heldNothingWillBeRendered : wording.nothingIsWaiting}
      </Typography>
    )
  const running = Math.max(0, ...waiting.map((r) => progress[r.id]?.secondsLeft ?? 0))
  const after = waiting
    .filter((r) => r.state.kind === 'waiting')
    .map((r) => estimate(r, toSeconds(outputLength(r.edit.highlight)), past).seconds)
  const seconds = after.includes(null) ? null : running + after.reduce((sum: number, s) => sum + (s ?? 0), 0)
  return (
    <Typography component="h1" sx={{ fontSize: textSize.lead, fontWeight: 700 }}>
      {wording.toGo(waiting.length)}
      <Box
        component="span"
        sx={{ ml: 2, fontWeight: 400, fontFamily: fonts.numbers, fontSize: textSize.note, color: palette.inkSoft }}
      >
        {held ? wording.held : seconds !== null && seconds > 0 && wording.aboutLeft(formatDuration(seconds))}
      </Box>
    </Typography>
  )
}
