'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { useLiveQuery } from 'dexie-react-hooks'
import { useSnackbar } from 'notistack'
import { useRef, type ChangeEvent } from 'react'
import { MOST_SETUP_FILE_BYTES, readSetupFile, writeSetupFile, type SetupFileResult } from '@/core/interchange/setupFile'
import type { Setup } from '@/core/model/setup'
import { addSetups, keptSetups, setupUses } from '@/store/setups'
import { offerDownload } from '@/ui/offerDownload'
import { palette } from '@/ui/theme'
import { TopBar } from '@/ui/TopBar'
import { importWords } from './messages'
import { SetupRow } from './SetupRow'

/** What is kept for next time. */
export function RackPage() {
  const setups = useLiveQuery(keptSetups)
  const uses = useLiveQuery(setupUses)
  const { enqueueSnackbar } = useSnackbar()
  const chooser = useRef<HTMLInputElement>(null)
  const take = async (event: ChangeEvent<HTMLInputElement>) => {
    const files = [...(event.target.files ?? [])]
    event.target.value = ''
    for (const file of files) {
      const read: SetupFileResult = file.size > MOST_SETUP_FILE_BYTES ? { ok: false, reason: 'too-large' } : readSetupFile(await file.text())
      const merge = read.ok ? await addSetups(read.setups) : null
      enqueueSnackbar(importWords(file.name, read, merge), { variant: read.ok && read.problems.length === 0 ? 'default' : 'warning', autoHideDuration: 12_000, style: { whiteSpace: 'pre-line' } })
    }
  }
  const write = (some: readonly Setup[], name: string) => offerDownload(new Blob([writeSetupFile(some)], { type: 'application/json' }), `${name}.brimble.json`)
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', minHeight: '100dvh' }}>
      <TopBar>
        <Button onClick={() => chooser.current?.click()}>Import…</Button>
        <Button disabled={!setups || setups.length === 0} onClick={() => setups && write(setups, 'setups')}>
          Export all
        </Button>
        <input ref={chooser} type="file" accept=".json,application/json" multiple hidden aria-label="Files of setups" onChange={(e) => void take(e)} />
      </TopBar>
      <Box component="main" sx={{ width: '100%', maxWidth: 1100, mx: 'auto', px: 4, py: 4 }}>
        <Box component="h1" sx={{ m: 0, mb: 1, fontSize: 18, fontWeight: 700 }}>
          Setups
        </Box>
        <Box sx={{ mb: 4, fontSize: 13, color: palette.inkSoft }}>Where things are in your recordings. One that is recognised in a new recording is used for it by itself.</Box>
        {setups?.length === 0 && (
          <Box sx={{ p: 6, border: `1px dashed ${palette.line}`, borderRadius: 1, fontSize: 13.5, color: palette.inkSoft }}>
            None kept yet. On the Bench, once the regions are right, open the menu <strong>Setup</strong> over the Frame and choose “Keep these regions as a setup”. Files that somebody sent you come in with Import.
          </Box>
        )}
        <Box role="list" aria-label="Setups">
          {setups?.map((setup) => (
            <SetupRow key={setup.id} setup={setup} uses={uses?.get(setup.id) ?? []} onExport={() => write([setup], setup.name)} />
          ))}
        </Box>
      </Box>
    </Box>
  )
}
