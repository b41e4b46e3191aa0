import Button from '@mui/material/Button'
import { useSnackbar } from 'notistack'
import { useEffect, useState } from 'react'
import type { Render } from '@/core/model/render'
import { explain } from '@/diagnostics/note'
import { handOver } from './away'
import { hasNodes } from './nodesClient'
import { wording } from '../wording'

/** Hands all that waits to the render nodes; only where the server was started with them. */
export function HandOver({ waiting }: { waiting: readonly Render[] }) {
  const { enqueueSnackbar } = useSnackbar()
  const [nodes, setNodes] = useState(false)
  const [busy, setBusy] = useState(false)
  useEffect(() => void hasNodes().then(setNodes), [])
  if (!nodes || waiting.length === 0) return null
  const hand = async () => {
    setBusy(true)
    await handOver(waiting).catch((error: unknown) =>
      enqueueSnackbar(explain('handing over to render nodes', error), { variant: 'error' }),
    )
    setBusy(false)
  }
  return (
    <Button disabled={busy} onClick={() => void hand()}>
      {wording.handToTheRenderNodes(waiting.length)}
    </Button>
  )
}
