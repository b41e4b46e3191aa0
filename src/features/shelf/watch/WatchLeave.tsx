'use client'

import Alert from '@mui/material/Alert'
import Button from '@mui/material/Button'
import { watchState, type WatchState } from './folderWatch'

/** Says when the watched folder cannot be read, with the way on; nothing otherwise. */
export function WatchLeave({ state }: { state: WatchState }) {
  if (state.kind === 'gone')
    return (
      <Alert severity="warning" sx={{ borderRadius: 0 }}>
        “{state.folder.name}” cannot be read: it was moved or deleted, or its drive is not there. Put it back, or choose
        another.
      </Alert>
    )
  if (state.kind !== 'needs-leave') return null
  const { folder } = state
  const ask = async () => {
    if ((await folder.requestPermission({ mode: 'read' })) === 'granted')
      watchState.setState({ kind: 'on', growing: [], taking: null }, true)
  }
  return (
    <Alert
      severity="info"
      sx={{ borderRadius: 0, alignItems: 'center' }}
      action={<Button onClick={() => void ask()}>Go on watching</Button>}
    >
      The browser asks once more whether Brimble may read “{folder.name}”. Until then it is not watched.
    </Alert>
  )
}
