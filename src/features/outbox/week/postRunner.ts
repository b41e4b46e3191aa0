import { afterFailure } from '@/core/week/week'
import type { Post } from '@/core/model/post'
import { openRenderFile } from '@/media/render/partFile'
import { kept } from '@/store/rack'
import { renderById } from '@/store/renders'
import { resumeSending, setPostState, takeDuePost } from '@/store/posts'
import { keepDoing } from '@/shared/oneTab'
import { standInOutlet, type OutletService } from './outletService'
import { wording } from '../wording'

/** One tab sends at a time. */
const LOCK = 'brimble-post'

/** The plan is looked at so often. */
const LOOKS_EVERY_MS = 5000

/**
 * Sends posts when they are due, while the application is open in some tab. Does nothing when it is already started.
 */
export function startPosting(service: OutletService = standInOutlet): void {
  keepDoing({
    lock: LOCK,
    begin: resumeSending,
    round: async () => {
      for (let due = await takeDuePost(new Date()); due; due = await takeDuePost(new Date())) await send(due, service)
      await new Promise((resolve) => setTimeout(resolve, LOOKS_EVERY_MS))
    },
  })
}

async function send(post: Post, service: OutletService): Promise<void> {
  const attempts = post.state.kind === 'failed' ? post.state.attempts + 1 : 1
  const render = await renderById(post.renderId)
  const file = render?.state.kind === 'finished' && !render.deletedAt ? await openRenderFile(render.id) : null
  if (!file || render?.state.kind !== 'finished')
    return setPostState(post.id, afterFailure('file-gone', '', attempts, new Date()))
  const outlet = (await kept('outlet')).find((o) => o.id === post.outletId)
  const result = await service.send({
    key: post.id,
    outletName: outlet?.name ?? wording.outlet,
    title: post.title,
    text: post.text,
    fileName: render.state.file.fileName,
    file,
  })
  await setPostState(
    post.id,
    result.ok
      ? { kind: 'posted', at: new Date().toISOString(), remoteId: result.remoteId }
      : afterFailure(result.reason, result.detail, attempts, new Date()),
  )
}
