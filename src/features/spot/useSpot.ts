import { startTransition, useCallback, useEffect, useState } from 'react'
import type { RecordingId } from '@/core/model/ids'
import type { Recording } from '@/core/model/recording'
import { wholeRecording } from '@/core/model/wholeRecording'
import { quietly } from '@/diagnostics/note'
import { Player } from '@/media/playback/player'
import { getRecording, storedFile } from '@/store/recordings'
import { openSpotting } from '@/store/spottings'
import { analyse } from '@/shared/recordings/analyser'
import type { Spot } from './spotContext'

export type SpotState =
  | { kind: 'loading' }
  | { kind: 'not-found' }
  | { kind: 'source-missing'; recording: Recording; needsPermission: boolean }
  | { kind: 'source-unreadable'; fileName: string }
  | { kind: 'ready'; spot: Spot }

/**
 * Opens a recording to find moments in it, and begins to look through it. Saves and closes when it is left; the
 * looking goes on.
 */
export function useSpot(id: string): { state: SpotState; reopen: () => void } {
  const [state, setState] = useState<SpotState>({ kind: 'loading' })
  const [attempt, setAttempt] = useState(0)
  const reopen = useCallback(() => setAttempt((n) => n + 1), [])

  useEffect(() => {
    let live = true
    let opened: Spot | null = null
    const close = () => {
      void opened?.session.flush()
      opened?.player.close()
    }
    setState({ kind: 'loading' })
    void open(id as RecordingId).then((result) => {
      if (result.kind === 'ready') opened = result.spot
      if (!live) return close()
      // A whole screen appears: in slices, so that nothing waits for it.
      startTransition(() => setState(result))
      if (opened) void analyse(opened.recording, opened.file).catch(quietly('the analysis of a recording'))
    })
    return () => {
      live = false
      close()
    }
  }, [id, attempt])

  return { state, reopen }
}

async function open(id: RecordingId): Promise<SpotState> {
  const recording = await getRecording(id)
  if (!recording) return { kind: 'not-found' }
  const stored = await storedFile(id)
  if (!stored.ok) return { kind: 'source-missing', recording, needsPermission: stored.reason === 'needs-permission' }
  const player = new Player()
  const reply = await player.open(wholeRecording(recording), new Map([[id, stored.file]]))
  if (!reply.ok) {
    player.close()
    return { kind: 'source-unreadable', fileName: reply.fileName }
  }
  player.setLoop(false)
  return { kind: 'ready', spot: { recording, file: stored.file, session: await openSpotting(id), player } }
}
