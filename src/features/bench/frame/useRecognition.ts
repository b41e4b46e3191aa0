import Button from '@mui/material/Button'
import { useSnackbar } from 'notistack'
import { createElement, useEffect, useRef } from 'react'
import { recognise } from '@/core/detect/regions/fingerprint'
import type { Setup } from '@/core/model/setup'
import { keptSetups } from '@/store/setups'
import { useBenchContext, useEdit, useParts } from '../benchContext'
import { applySetup } from '../edits'
import { lookAt } from './looks'

/**
 * Compares a recording that nobody has said anything about with the kept setups, once. A sure match is applied and said so, with undo at
 * hand; an unsure one is offered. Where the person has begun to set regions, nothing is done.
 */
export function useRecognition(): void {
  const { session, files } = useBenchContext()
  const edit = useEdit()
  const { recording, setup } = useParts()
  const { enqueueSnackbar, closeSnackbar } = useSnackbar()
  const asked = useRef(false)
  const untouched = edit.highlight.passages.length === 1 && setup.basedOn === null && setup.isGuess
  useEffect(() => {
    const file = files.get(recording.id)
    if (asked.current || !untouched || !file) return
    asked.current = true
    const offer = (words: string, button: string, act: () => void) =>
      enqueueSnackbar(words, {
        autoHideDuration: 20_000,
        action: (key) => createElement(Button, { variant: 'text', sx: { color: '#fff' }, onClick: () => (closeSnackbar(key), act()) }, button),
      })
    const compare = async () => {
      const known = (await keptSetups()).filter((s) => s.fingerprint)
      if (known.length === 0) return
      const look = await lookAt(recording, file, session.value)
      const stillUntouched = session.value.setups.find((s) => s.id === setup.id)?.isGuess
      if (!look || !stillUntouched) return
      const found = recognise<Setup>(look.fingerprint, known)
      if (found.kind === 'none') return
      const words = `Looks like “${found.match.name}”, ${found.likeness.toFixed(2)}`
      const apply = () => applySetup(session, setup.id, found.match)
      if (found.kind === 'unsure') return void offer(`${words}. Not sure.`, 'Use its regions', apply)
      apply()
      offer(`${words}. Its regions are set.`, 'Undo', () => session.undo())
    }
    void compare()
  }, [untouched, recording, setup.id, files, session, enqueueSnackbar, closeSnackbar])
}
