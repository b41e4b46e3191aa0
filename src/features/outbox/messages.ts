import type { RenderFailure } from '@/core/model/render'
import { formatSize, formatTime } from '@/ui/format'

/** Why a render ended without a file, what was kept, and what to do. */
export function failureMessage(failure: RenderFailure): string {
  switch (failure.reason) {
    case 'source-missing':
      return `“${failure.fileName}” was not found. Open the highlight and choose the file again, then retry.`
    case 'source-unreadable':
      return `“${failure.fileName}” cannot be decoded at ${formatTime(failure.atMicros)} (${failure.detail}). Cut that part out, or repair the file, then retry.`
    case 'encoder-refuses-size':
      return `This browser has no encoder for ${formatSize(failure)}. Choose a smaller shape.`
    case 'no-room':
      return 'The browser’s storage is full: the file could not be written and nothing of it is left. Save and throw away older files here, then retry.'
    case 'interrupted':
      return 'The tab was closed or crashed again and again in the middle. The edit is safe: retry makes the file from the start.'
    case 'nodes-failed':
      return `The render nodes could not make it (${failure.detail}). Retry makes it here; the nodes can be asked again then.`
    case 'broken':
      return `Something went wrong in the render (${failure.detail}). The edit is safe; retry, and report it if it happens again.`
  }
}
