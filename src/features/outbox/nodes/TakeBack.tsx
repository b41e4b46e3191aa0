import Button from '@mui/material/Button'
import { useSnackbar } from 'notistack'
import type { RenderId } from '@/core/model/ids'
import { nullOnError } from '@/diagnostics/note'
import { takeBack } from './away'
import { wording } from '../wording'

/** Takes a render back from the render nodes, as long as none of them is at work on it. */
export function TakeBack({ id }: { id: RenderId }) {
  const { enqueueSnackbar } = useSnackbar()
  const take = async () => {
    const taken = await takeBack(id).catch(nullOnError('taking back from render nodes'))
    if (taken !== true)
      enqueueSnackbar(taken === null ? wording.theRenderNodesQueueDoes : wording.aRenderNodeIsAt, {
        variant: taken === null ? 'error' : 'default',
      })
  }
  return <Button onClick={() => void take()}>{wording.takeBack}</Button>
}
