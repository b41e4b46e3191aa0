import { useSnackbar } from 'notistack'
import { splitPassage, strikeStretch } from '@/edit/passages'
import { newId, type PassageId } from '@/core/model/ids'
import { useBenchContext } from '../benchContext'
import { wording } from './wording'

/** What is cut where the playhead is, and in the marked stretch; says what is missing when it cannot be. */
export function useCutting(): { split: () => void; strike: () => void } {
  const { session, player, view } = useBenchContext()
  const { enqueueSnackbar } = useSnackbar()
  return {
    split: () => {
      splitPassage(session, { t: player.positionMicros, newId: newId<PassageId>() })
    },
    strike: () => {
      const { stretch } = view.getState()
      if (!stretch) return void enqueueSnackbar(wording.markAStretchFirstWhere)
      player.pause()
      strikeStretch(session, { fromMicros: stretch.fromMicros, toMicros: stretch.toMicros })
      view.setState({ stretch: null })
      player.seek(stretch.fromMicros)
    },
  }
}
