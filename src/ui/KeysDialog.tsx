'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import FormControlLabel from '@mui/material/FormControlLabel'
import Switch from '@mui/material/Switch'
import { useLiveQuery } from 'dexie-react-hooks'
import { useState, type KeyboardEvent, type ReactNode } from 'react'
import { changeKeySettings, readKeySettings, USUAL_KEYS } from '@/store/keySettings'
import { asChanged, isLetter, keyNames, withLetter, type KeyBinding, type KeyNote } from './keyBindings'
import { fonts, palette, textSize } from './theme'

interface Props {
  screen: string
  bindings: readonly KeyBinding[]
  notes: readonly KeyNote[]
  onClose: () => void
}

/** A screen's keys with what each does. Single letters can be changed, and switched off. */
export function KeysDialog({ screen, bindings, notes, onClose }: Props) {
  const settings = useLiveQuery(readKeySettings) ?? USUAL_KEYS
  const [changing, setChanging] = useState<string | null>(null)
  const changed = settings.changed[screen] ?? {}
  const shown = asChanged(bindings, { letters: true, changed })
  const isUsual = Object.keys(changed).length === 0
  const keep = (changed: Record<string, string>) =>
    changeKeySettings((now) => ({ ...now, changed: { ...now.changed, [screen]: changed } }))
  const take = (id: string) => (event: KeyboardEvent) => {
    if (changing !== id || event.key === 'Tab') return
    event.preventDefault()
    event.stopPropagation()
    setChanging(null)
    const letter = event.key.toLowerCase()
    if (/^[a-z]$/.test(letter)) void keep(withLetter(bindings, { letters: true, changed }, id, letter).changed)
  }
  return (
    <Dialog open onClose={onClose} maxWidth="sm" fullWidth>
      <DialogTitle>Keys</DialogTitle>
      <DialogContent>
        <FormControlLabel
          control={
            <Switch
              size="small"
              checked={settings.letters}
              onChange={(_, letters) => void changeKeySettings((now) => ({ ...now, letters }))}
            />
          }
          label="Single letters, digits and marks"
          slotProps={{ typography: { sx: { fontSize: textSize.body } } }}
          sx={{ mb: 2 }}
        />
        <Box
          component="dl"
          sx={{
            m: 0,
            display: 'grid',
            gridTemplateColumns: '132px 1fr',
            rowGap: 1.5,
            columnGap: 4,
            fontSize: textSize.body,
            alignItems: 'baseline',
          }}
        >
          {shown.map((binding, n) => (
            <Line key={binding.id} does={binding.does}>
              {isLetter(bindings[n] ?? binding) ? (
                <Button
                  size="small"
                  aria-label={`Change the key for “${binding.does}”, now ${keyNames(binding)}`}
                  disabled={!settings.letters}
                  onClick={() => setChanging(binding.id)}
                  onKeyDown={take(binding.id)}
                  onBlur={() => setChanging(null)}
                  sx={{ fontFamily: fonts.numbers, fontSize: textSize.note, minWidth: 32, px: 2, py: 0 }}
                >
                  {changing === binding.id ? 'press a letter' : keyNames(binding)}
                </Button>
              ) : (
                keyNames(binding)
              )}
            </Line>
          ))}
          {notes.map(({ shown, does }) => (
            <Line key={`${shown} ${does}`} does={does}>
              {shown}
            </Line>
          ))}
        </Box>
      </DialogContent>
      <DialogActions>
        {!isUsual && <Button onClick={() => void keep({})}>Usual keys</Button>}
        <Box sx={{ flex: 1 }} />
        <Button onClick={onClose}>Close</Button>
      </DialogActions>
    </Dialog>
  )
}

function Line({ does, children }: { does: string; children: ReactNode }) {
  return (
    <Box sx={{ display: 'contents' }}>
      <Box component="dt" sx={{ fontFamily: fonts.numbers, fontSize: textSize.note, color: palette.ink }}>
        {children}
      </Box>
      <Box component="dd" sx={{ m: 0 }}>
        {does}
      </Box>
    </Box>
  )
}
