'use client'

import Alert from '@mui/material/Alert'
import Button from '@mui/material/Button'
import { watchState, type WatchState } from './folderWatch'
import { wording } from '../wording'

/** Says when the watched folder cannot be read, with the way on; nothing otherwise. */
export function WatchLeave({ state }: { state: WatchState }) {
  if (state.kind === 'gone')
    return (
      <Alert severity="warning" sx={{ borderRadius: 0 }}>
        {wording.cannotBeReadItWas(state.folder.name)}
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
      action={<Button onClick={() => void ask()}>{wording.goOnWatching}</Button>}
    >
      {wording.theBrowserAsksOnceMore(folder.name)}
    </Alert>
  )
}
