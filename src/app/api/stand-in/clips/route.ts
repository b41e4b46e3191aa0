import { forOwnPages } from '@/server/ownPages'
import { clipFaultNow, clipMonths, clipsOf } from '@/server/standIns/clipHost'
import { failingAs } from './failing'

export const dynamic = 'force-dynamic'

/** The months that have clips, and the clips of the one asked for; of the newest where none is. */
export const GET = forOwnPages(async (request) => {
  const failing = failingAs(clipFaultNow())
  if (failing) return failing
  const months = clipMonths()
  const month = new URL(request.url).searchParams.get('month') ?? months[0] ?? ''
  return Response.json({ standIn: true, months, month, clips: await clipsOf(month) })
})
