import { z } from 'zod'
import { forOwnPages } from '@/server/ownPages'
import { answerJson } from '@/server/readBody'
import { CLIP_FAULTS, clipFaultNow, setClipFault } from '@/server/standIns/clipHost'

export const dynamic = 'force-dynamic'

const MAX_BYTES = 1000
const wanted = z.object({ fault: z.enum(CLIP_FAULTS) })

/** How the stand-in is set to fail. A real host has nothing like it. */
export const GET = forOwnPages(() => Response.json({ fault: clipFaultNow() }))

/** Sets how it fails from now on: for trying out. */
export const PUT = forOwnPages((request) =>
  answerJson(request, wanted, MAX_BYTES, ({ fault }) => {
    setClipFault(fault)
    return new Response(null, { status: 204 })
  }),
)
