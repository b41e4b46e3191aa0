import { useSnackbar } from 'notistack'
import { useEffect } from 'react'
import { MOST, type Limited } from '@/core/model/overfull'
import type { EditSession } from './edits'

const WORDS: Record<Limited, string> = {
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
  pathKeys: 'places on a path',
}

/** Says why a change was not made. */
export function useRefusals(session: EditSession): void {
  const { enqueueSnackbar } = useSnackbar()
  useEffect(
    () =>
      session.store.subscribe(({ refusal }, before) => {
        if (!refusal || refusal === before.refusal) return
        const what = refusal.what as Limited
        enqueueSnackbar(`“${refusal.label}” was not done: there are ${MOST[what]} ${WORDS[what]} at most.`, { key: `refused ${what}`, preventDuplicate: true })
      }),
    [session, enqueueSnackbar],
  )
}
