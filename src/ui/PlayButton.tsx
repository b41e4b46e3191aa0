'use client'

import PauseIcon from '@mui/icons-material/Pause'
import PlayArrowIcon from '@mui/icons-material/PlayArrow'
import Button from '@mui/material/Button'
import type { KeyBinding } from './keyBindings'
import { KeyTip } from './KeyTip'

interface PlayButtonProps {
  screen: string
  bindings: readonly KeyBinding[]
  isPlaying: boolean
  onToggle: () => void
}

/** Plays and pauses. */
export function PlayButton({ screen, bindings, isPlaying, onToggle }: PlayButtonProps) {
  const does = isPlaying ? 'Pause' : 'Play'
  return (
    <KeyTip screen={screen} bindings={bindings} id="play" title={does}>
      <Button variant="contained" color="primary" aria-label={does} onClick={onToggle} sx={{ minWidth: 40, px: 2 }}>
        {isPlaying ? <PauseIcon /> : <PlayArrowIcon />}
      </Button>
    </KeyTip>
  )
}
