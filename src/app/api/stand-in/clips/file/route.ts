import { forOwnPages } from '@/server/ownPages'
import { clipAt, clipFaultNow } from '@/server/standIns/clipHost'
import { failingAs } from '../failing'

export const dynamic = 'force-dynamic'

/** The file at an address, with its size, name, title and time in the answer's head. */
export const GET = forOwnPages(async (request) => {
  const failing = failingAs(clipFaultNow())
  if (failing) return failing
  const found = await clipAt(new URL(request.url).searchParams.get('address') ?? '')
  if (!found) return Response.json({ error: 'There is no clip at this address.' }, { status: 404 })
  const { clip, fileName, body } = found
  return new Response(body, {
    headers: {
      'Content-Type': 'video/mp4',
      'Content-Disposition': `attachment; filename="${fileName}"`,
      'X-Clip-Bytes': String(clip.sizeBytes),
      'X-Clip-Title': encodeURIComponent(clip.title),
      'X-Clip-Recorded-At': clip.recordedAt,
    },
  })
})
