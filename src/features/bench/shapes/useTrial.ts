import { useCallback, useEffect, useRef } from 'react'
import { produce } from 'immer'
import { layoutOf, passageOf } from '@/core/model/edit'
import type { Chosen } from '@/edit/layouts'
import { useBenchContext } from '../benchContext'

type Tried = Pick<Chosen, 'arrangement' | 'perShape' | 'adapts'>

/**
 * Shows how an arrangement would look, without changing anything: every passage that has the layout in use is drawn
 * with it until `null` is tried.
 */
export function useTrial(): (chosen: Tried | null) => void {
  const { session, player, view } = useBenchContext()
  const trying = useRef(false)
  const tryOut = useCallback(
    (chosen: Tried | null) => {
      if (!chosen && !trying.current) return
      trying.current = chosen !== null
      view.setState({ trial: chosen !== null })
      const { passageId } = view.getState()
      const edit = session.value
      const id = passageId ?? edit.highlight.passages[0]?.id
      player.setEdit(
        chosen && id
          ? produce(
              edit,
              (draft) =>
                void Object.assign(layoutOf(draft, passageOf(draft, id).layoutId), {
                  arrangement: chosen.arrangement,
                  perShape: chosen.perShape,
                  adapts: chosen.adapts,
                }),
            )
          : edit,
      )
    },
    [session, player, view],
  )
  useEffect(() => () => tryOut(null), [tryOut])
  return tryOut
}
