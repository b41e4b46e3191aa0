import { useSnackbar } from 'notistack'
import { useEffect } from 'react'
import { MOST, type Limited } from '@/core/model/overfull'
import { MAX_MOMENTS } from '@/core/model/spotting'
import type { Session } from '@/store/session'

const LIMITS = { ...MOST, moments: MAX_MOMENTS }

const WORDS: Record<Limited | 'moments', string> = {
  passages: 'passages in a highlight',
  shapes: 'shapes of a highlight',
  beds: 'pieces of music and voices under a highlight',
  marks: 'things on a picture',
  titles: 'titles in a highlight',
  cues: 'captions in a highlight',
  speakers: 'people who speak',
  regions: 'regions in a setup',
  bands: 'bands beside each other',
  insets: 'insets in a layout',
  corrections: 'shifted crops in a passage',
  feeds: 'panels of a passage that play something else',
  strikes: 'stretches struck out of a passage',
  shifts: 'regions that lie elsewhere in a passage',
  paths: 'regions of a passage that are followed',
  pathKeys: 'places on a path',
  moments: 'moments of a recording',
}

const limitWords = (what: keyof typeof WORDS) => `there are ${LIMITS[what].toLocaleString('en')} ${WORDS[what]} at most`

/** Says why a change was not made. */
export function useRefusals<T extends object>(session: Session<T>): void {
  const { enqueueSnackbar } = useSnackbar()
  useEffect(
    () =>
      session.store.subscribe(({ refusal }, before) => {
        if (!refusal || refusal === before.refusal) return
        const why = 'why' in refusal ? refusal.why : limitWords(refusal.limit as keyof typeof WORDS)
        enqueueSnackbar(`“${refusal.label}” was not done: ${why}.`, { key: `refused ${why}`, preventDuplicate: true })
      }),
    [session, enqueueSnackbar],
  )
}
