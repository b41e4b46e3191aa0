import { readOutboxSettings } from '@/store/outboxSettings'
import { wording } from './wording'

/** Whether the system may tell; asks the person where that is not decided yet. Call it from a click. */
export async function mayNotify(): Promise<boolean> {
  if (!('Notification' in window)) return false
  return (
    (Notification.permission === 'default' ? await Notification.requestPermission() : Notification.permission) ===
    'granted'
  )
}

const files = (n: number) => `${n} ${n === 1 ? 'file' : 'files'}`

/** Tells through the system that the queue is done, or that some of it wants a person. */
export async function tellThatQueueIsDone({ finished, failed }: { finished: number; failed: number }): Promise<void> {
  await tell(
    failed > 0 ? wording.someRendersNeedYou : wording.allRendered,
    failed > 0 ? wording.readyFailed(files(finished), failed) : wording.readyInTheOutbox(files(finished)),
    'queue',
  )
}

/**
 * Tells through the system, where that was asked for and nobody is looking. What is told under one `tag` takes the
 * place of what was told under it before.
 */
export async function tell(title: string, body: string, tag: string): Promise<void> {
  const { notify } = await readOutboxSettings()
  if (
    !notify ||
    !('Notification' in window) ||
    Notification.permission !== 'granted' ||
    document.visibilityState === 'visible'
  )
    return
  new Notification(title, { body, tag })
}
