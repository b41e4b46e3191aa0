import Button from '@mui/material/Button'
import { useSnackbar } from 'notistack'
import type { RenderId } from '@/core/model/ids'
import { nullOnError } from '@/diagnostics/note'
import { takeBack } from './away'

/** Takes a render back from the render nodes, as long as none of them is at work on it. */
export function TakeBack({ id }: { id: RenderId }) {
  const { enqueueSnackbar } = useSnackbar()
  const take = async () => {
    const taken = await takeBack(id).catch(nullOnError('taking back from render nodes'))
    if (taken !== true)
      enqueueSnackbar(
        taken === null
          ? 'The render nodes’ queue does not answer. Nothing was changed.'
          : 'A render node is at work on it; it will be made there.',
        { variant: taken === null ? 'error' : 'default' },
      )
  }
  return <Button onClick={() => void take()}>Take back</Button>
}
