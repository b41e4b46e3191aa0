'use client'

import KeyboardIcon from '@mui/icons-material/KeyboardOutlined'
import PauseIcon from '@mui/icons-material/Pause'
import PlayArrowIcon from '@mui/icons-material/PlayArrow'
import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import IconButton from '@mui/material/IconButton'
import LinearProgress from '@mui/material/LinearProgress'
import Tooltip from '@mui/material/Tooltip'
import { useRouter } from 'next/navigation'
import { useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react'
import { useStore } from 'zustand'
import { coverage } from '@/core/detect/analysis'
import type { PreviewTarget } from '@/media/workers/preview.protocol'
import { Kbd } from '@/ui/Kbd'
import { PlayButton } from '@/ui/PlayButton'
import { formatTime, formatVideo } from '@/ui/format'
import { KeysDialog } from '@/ui/KeysDialog'
import { KeyTip, useKeyName } from '@/ui/KeyTip'
import { fonts, iconSize, palette, textSize } from '@/ui/theme'
import { CannotOpen, Opening } from '@/ui/Opening'
import { TopBar } from '@/ui/TopBar'
import { useTabTitle } from '@/ui/useTabTitle'
import { usePreviewCanvas } from '@/ui/usePreviewCanvas'
import { useOffer } from '@/ui/useOffer'
import { SourceMissing } from '@/shared/recordings/SourceMissing'
import { SavingNote } from '@/shared/SavingNote'
import { useKeepSaved } from '@/shared/useKeepSaved'
import { useRefusals } from '@/shared/useRefusals'
import { analyse, pauseAnalysis } from '@/shared/recordings/analyser'
import { Bands } from './Bands'
import { cutAsOne, cutHighlights } from './cutHighlights'
import { MarksMenu } from './MarksMenu'
import { MomentList } from './MomentList'
import { newSpotView, SpotContext, useSpotContext, type Spot, type SpotContextValue } from './spotContext'
import { useMoments, type SpottedMoments } from './useMoments'
import { useSpot } from './useSpot'
import { useSpotActions, type SpotActions } from './useSpotActions'
import { SPOT_KEYS, useSpotKeys, type SpotKey } from './useSpotKeys'
import { wording } from './wording'

/** Where the moments of a whole recording are found. */
export function SpotPage({ id }: { id: string }) {
  const { state, reopen } = useSpot(id)
  switch (state.kind) {
    case 'loading':
      return <Opening what={wording.recording} />
    case 'ready':
      return <ReadySpot key={state.spot.recording.id} spot={state.spot} />
    case 'source-missing':
      return (
        <>
          <TopBar />
          <SourceMissing recording={state.recording} needsPermission={state.needsPermission} onFound={reopen} />
        </>
      )
    case 'not-found':
      return <CannotOpen message={wording.thereIsNoSuchRecording} />
    case 'source-unreadable':
      return <CannotOpen message={wording.canNoLongerBeRead(state.fileName)} />
  }
}

function ReadySpot({ spot }: { spot: Spot }) {
  const [view] = useState(() => newSpotView(spot.recording.durationMicros))
  const value = useMemo<SpotContextValue>(() => ({ ...spot, view }), [spot, view])
  return (
    <SpotContext value={value}>
      <SpotScreen />
    </SpotContext>
  )
}

function SpotScreen() {
  const context = useSpotContext()
  const { recording, session } = context
  useRefusals(session)
  useKeepSaved(session)
  const spotted = useMoments()
  const router = useRouter()
  const offer = useOffer()
  const [keysOpen, setKeysOpen] = useState(false)
  const kept = spotted.moments.filter((m) => m.state === 'kept')
  const cut = async () => {
    if (kept.length === 0) return
    const highlights = await cutHighlights(session, recording, kept)
    const [first] = highlights
    const one = highlights.length === 1
    offer({
      words: wording.onTheShelf(highlights.length, one),
      button: one ? wording.openIt : wording.goToTheShelf,
      act: () => router.push(first && one ? `/highlight/${encodeURIComponent(first.id)}` : '/'),
    })
  }
  const join = async () => {
    const highlight = await cutAsOne(session, recording, kept)
    offer({
      words: wording.isOnTheShelf(highlight.name),
      button: wording.openIt,
      act: () => router.push(`/highlight/${encodeURIComponent(highlight.id)}`),
    })
  }
  const actions = useSpotActions(spotted)
  useTabTitle(recording.name, 'Spot')
  useSpotKeys(context, actions, { cut: () => void cut(), keys: () => setKeysOpen(true) })
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', height: '100dvh' }}>
      <TopBar
        title={
          <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 3, minWidth: 0 }}>
            <Box
              component="h1"
              title={recording.name}
              sx={{
                m: 0,
                fontSize: textSize.lead,
                fontWeight: 700,
                overflow: 'hidden',
                textOverflow: 'ellipsis',
                whiteSpace: 'nowrap',
              }}
            >
              {recording.name}
            </Box>
            <Box
              sx={{ fontFamily: fonts.numbers, fontSize: textSize.small, color: palette.inkSoft, whiteSpace: 'nowrap' }}
            >
              {formatTime(recording.durationMicros, 0)} · {formatVideo(recording.video)}
            </Box>
          </Box>
        }
      >
        <Progress found={spotted} />
        <MarksMenu found={spotted} />
        <KeyTip screen="spot" bindings={SPOT_KEYS} id="keys" title={wording.keys}>
          <IconButton aria-label={wording.keys} onClick={() => setKeysOpen(true)}>
            <KeyboardIcon sx={{ fontSize: iconSize.large }} />
          </IconButton>
        </KeyTip>
        {kept.length > 1 && <Button onClick={() => void join()}>{wording.joinIntoOne(kept.length)}</Button>}
        <Button variant="contained" color="primary" disabled={kept.length === 0} onClick={() => void cut()}>
          {kept.length === 0 ? wording.cutHighlights : wording.cutOfCount(kept.length)}
        </Button>
      </TopBar>
      <SaveAlert />
      <Box component="main" sx={{ flex: 1, minHeight: 0, display: 'flex', flexDirection: 'column' }}>
        <Box sx={{ flex: 1, minHeight: 0, display: 'grid', gridTemplateColumns: 'minmax(0, 1fr) minmax(380px, 37%)' }}>
          <Picture />
          <MomentList found={spotted} />
        </Box>
        <Bands found={spotted} />
      </Box>
      <Transport actions={actions} onKeys={() => setKeysOpen(true)} />
      {keysOpen && <KeysDialog screen="spot" bindings={SPOT_KEYS} notes={[]} onClose={() => setKeysOpen(false)} />}
    </Box>
  )
}

/** How much has been looked through, with pause; the reason when it stopped. */
function Progress({ found: { analysis, state } }: { found: SpottedMoments }) {
  const { recording, file } = useSpotContext()
  const { sound, pictures } = coverage(analysis)
  const share = recording.sound ? (sound + pictures) / 2 : pictures
  if (state.kind === 'done') return null
  if (state.kind === 'failed')
    return (
      <Alert
        severity="warning"
        sx={{ py: 0 }}
        action={<Button onClick={() => void analyse(recording, file)}>{wording.tryAgain}</Button>}
      >
        {wording.couldNotBeLookedThrough(state.detail)}
      </Alert>
    )
  const paused = state.kind === 'paused'
  return (
    <Box
      role="status"
      sx={{
        display: 'flex',
        alignItems: 'center',
        gap: 1.5,
        fontSize: textSize.note,
        color: palette.inkSoft,
        whiteSpace: 'nowrap',
      }}
    >
      {paused ? wording.pausedAt : wording.lookedThrough} {Math.floor(share * 100)} %
      <LinearProgress
        variant="determinate"
        value={share * 100}
        aria-label={wording.lookedThroughCapital}
        sx={{ width: 70, height: 4 }}
      />
      <Tooltip title={paused ? wording.goOnLookingThrough : wording.pauseLookingThrough}>
        <IconButton
          aria-label={paused ? wording.goOnLookingThrough : wording.pauseLookingThrough}
          onClick={() => (paused ? void analyse(recording, file) : pauseAnalysis(recording.id))}
          sx={{ p: '2px' }}
        >
          {paused ? (
            <PlayArrowIcon sx={{ fontSize: iconSize.medium }} />
          ) : (
            <PauseIcon sx={{ fontSize: iconSize.medium }} />
          )}
        </IconButton>
      </Tooltip>
    </Box>
  )
}

/** Says nothing while all is well. */
function SaveAlert() {
  const { session } = useSpotContext()
  const saving = useStore(session.store, (s) => s.saving)
  if (saving === 'saved' || saving === 'saving') return <SavingNote session={session} />
  const words = {
    conflict: wording.theMomentsOfThisRecording,
    'no-room': wording.theBrowsersStorageIsFull,
    failed: wording.whatYouDecidedCouldNot,
  }
  return (
    <Alert
      severity={saving === 'conflict' ? 'warning' : 'error'}
      sx={{ borderRadius: 0 }}
      action={
        saving === 'conflict' ? <Button onClick={() => window.location.reload()}>{wording.reload}</Button> : undefined
      }
    >
      {words[saving]}
    </Alert>
  )
}

const FRAME_TARGET: PreviewTarget = { kind: 'frame' }

function Picture() {
  const { player, recording } = useSpotContext()
  const host = useRef<HTMLDivElement>(null)
  usePreviewCanvas(player, host, FRAME_TARGET, wording.theRecordingsPicture)
  const { width, height } = recording.video
  return (
    <Box
      sx={{ bgcolor: palette.mat, minHeight: 0, p: 3, display: 'grid', placeItems: 'center', containerType: 'size' }}
    >
      <Box
        ref={host}
        data-testid="spot-picture"
        sx={{
          position: 'relative',
          width: `min(100cqw - 24px, (100cqh - 24px) * ${width / height})`,
          aspectRatio: `${width} / ${height}`,
        }}
      />
    </Box>
  )
}

function Transport({ actions, onKeys }: { actions: SpotActions; onKeys: () => void }) {
  const { player, recording } = useSpotContext()
  const state = useSyncExternalStore(player.subscribe, player.getState, player.getState)
  const clock = useRef<HTMLSpanElement>(null)
  useEffect(
    () =>
      player.onPosition((t) => {
        if (clock.current) clock.current.textContent = formatTime(t, 2)
      }),
    [player],
  )
  const playing = state.kind === 'playing'
  return (
    <Box
      component="footer"
      aria-label={wording.player}
      sx={{
        display: 'flex',
        alignItems: 'center',
        gap: 3,
        height: 48,
        flex: 'none',
        px: 4.5,
        bgcolor: 'background.paper',
        borderTop: 1,
        borderColor: 'divider',
      }}
    >
      <PlayButton screen="spot" bindings={SPOT_KEYS} isPlaying={playing} onToggle={() => player.toggle()} />
      <Box sx={{ fontFamily: fonts.numbers, fontSize: textSize.body, whiteSpace: 'nowrap' }}>
        <span ref={clock} data-testid="clock" />{' '}
        <Box component="span" sx={{ color: palette.inkSoft }}>
          / {formatTime(recording.durationMicros, 2)}
        </Box>
        {playing && state.rate !== 1 && (
          <Box component="span" sx={{ color: palette.strawInk }}>
            {' '}
            {state.rate}×
          </Box>
        )}
      </Box>
      <Box sx={{ flex: 1 }} />
      <KeyButton id="mark" does="mark" onClick={actions.mark} />
      <KeyButton id="next" does={wording.nextMoment} onClick={actions.next} />
      <KeyButton id="keep" does="keep" onClick={actions.keepSelected} />
      <KeyButton id="drop" does="drop" onClick={actions.dropSelected} />
      <KeyButton id="in" does={wording.inHere} onClick={() => actions.setEdge('in')} />
      <KeyButton id="out" does={wording.outHere} onClick={() => actions.setEdge('out')} />
      <Button variant="text" onClick={onKeys}>
        {wording.allKeys}
      </Button>
    </Box>
  )
}

/** Does by mouse what a key does, and says which. */
function KeyButton({ id, does, onClick }: { id: SpotKey; does: string; onClick: () => void }) {
  const name = useKeyName({ screen: 'spot', bindings: SPOT_KEYS, id })
  return (
    <Button variant="text" onClick={onClick} sx={{ gap: 1.5, px: 1, minWidth: 0, fontWeight: 500 }}>
      {name !== '' && <Kbd>{name}</Kbd>}
      {does}
    </Button>
  )
}
