import { useSnackbar } from 'notistack'
import { useBenchContext } from '../benchContext'
import { splitAt, strikeStretch } from './cuts'

/** What is cut where the playhead is, and in the marked stretch; says what is missing when it cannot be. */
export function useCutting(): { split: () => void; strike: () => void } {
  const { session, player, view } = useBenchContext()
  const { enqueueSnackbar } = useSnackbar()
  return {
    split: () => {
      if (!splitAt(session, player.positionMicros)) enqueueSnackbar('There is nothing to split here: the playhead is on a cut.')
    },
    strike: () => {
      const { stretch } = view.getState()
      if (!stretch) return void enqueueSnackbar('Mark a stretch first: , where it begins and . where it ends, or drag along the times of the Sheet.')
      player.pause()
      strikeStretch(session, stretch.fromMicros, stretch.toMicros)
      view.setState({ stretch: null })
      player.seek(stretch.fromMicros)
    },
  }
}
