'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import LinearProgress from '@mui/material/LinearProgress'
import { useSnackbar } from 'notistack'
import { useEffect, useRef, useState } from 'react'
import { freeName } from '@/core/interchange/freeName'
import { confirmed } from '@/core/model/region'
import { title } from '@/core/model/record'
import { keepSetup, keptSetups } from '@/store/setups'
import { NameAndTags } from '@/ui/NameAndTags'
import { SetupDiagram } from '@/ui/SetupDiagram'
import { tagsFrom } from '@/ui/tags'
import { palette, textSize } from '@/ui/theme'
import { baseSetupOn } from '@/edit/regions'
import { useBenchContext, useParts } from '../benchContext'
import { lookAt } from '@/shared/looks/looks'
import { useLook, useScene } from './useLook'
import { wording } from './wording'

const LOOK_WORDS = {
  looking: wording.lookingAtWhatHoldsStill,
  seen: wording.whatHoldsStillInThe,
  failed: wording.theFootageWasNotLooked,
}

/**
 * Keeps the regions for all recordings like this one. The footage is looked at meanwhile, so that the next one can be
 * recognised.
 */
export function KeepSetupDialog({ onClose }: { onClose: () => void }) {
  const { session, files } = useBenchContext()
  const { setup, recording } = useParts()
  const { enqueueSnackbar } = useSnackbar()
  const scene = useScene()
  const look = useLook()
  const [name, setName] = useState(setup.name)
  const [tags, setTags] = useState(setup.tags.join(', '))
  const [keeping, setKeeping] = useState(false)
  const asked = useRef(false)
  const file = files.get(recording.id)
  useEffect(() => {
    const isKnown = look !== null && (look.kind !== 'seen' || look.asked)
    if (asked.current || isKnown || !file) return
    asked.current = true
    void lookAt(scene, file, session.value)
  }, [look, file, scene, session])
  const named = title.safeParse(name)
  const keep = async () => {
    if (!named.success) return
    setKeeping(true)
    const there = await keptSetups()
    const fingerprint = look?.kind === 'seen' ? look.look.fingerprint : null
    const kept = await keepSetup({
      name: freeName(
        named.data,
        there.map((s) => s.name),
      ),
      tags: tagsFrom(tags),
      regions: confirmed(setup.regions),
      fingerprint,
    })
    baseSetupOn(session, { setupId: setup.id, kept })
    enqueueSnackbar(wording.isKeptRecordingsThatLook(kept.name))
    onClose()
  }
  return (
    <Dialog open onClose={onClose} maxWidth="xs" fullWidth>
      <DialogTitle>{wording.keepAsASetup}</DialogTitle>
      <DialogContent>
        <Box
          component="form"
          onSubmit={(e) => {
            e.preventDefault()
            void keep()
          }}
          sx={{ display: 'grid', rowGap: 4, pt: 2 }}
        >
          <Box sx={{ display: 'flex', gap: 4, alignItems: 'center' }}>
            <SetupDiagram regions={setup.regions} width={144} />
            <Box sx={{ fontSize: textSize.note, color: palette.inkSoft }}>
              {LOOK_WORDS[look?.kind ?? 'failed']}
              {look?.kind === 'looking' && (
                <LinearProgress
                  variant="determinate"
                  value={look.share * 100}
                  sx={{ mt: 2, height: 4 }}
                  aria-label={wording.lookedAt}
                />
              )}
            </Box>
          </Box>
          <NameAndTags name={name} isNameRight={named.success} onName={setName} tags={tags} onTags={setTags} />
          <button type="submit" hidden />
        </Box>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>{wording.cancel}</Button>
        <Button
          variant="contained"
          color="primary"
          disabled={!named.success || keeping || look?.kind === 'looking'}
          onClick={() => void keep()}
        >
          {wording.keepSetup}
        </Button>
      </DialogActions>
    </Dialog>
  )
}
