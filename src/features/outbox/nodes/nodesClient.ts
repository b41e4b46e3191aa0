import { z } from 'zod'
import type { Render } from '@/core/model/render'

const ADDRESS = '/api/render-nodes'

const progress = z.object({ frame: z.number(), frames: z.number(), rate: z.number(), secondsLeft: z.number() })
const made = z.object({
  names: z.array(z.string()),
  node: z.string(),
  sizeBytes: z.number(),
  frames: z.number(),
  tookMs: z.number(),
})
const job = z.object({
  id: z.string(),
  state: z.string(),
  progress: progress.nullable().catch(null),
  failedReason: z.string().nullable(),
  attempts: z.number(),
  made: made.nullable().catch(null),
})
const told = z.object({ nodes: z.boolean(), jobs: z.array(job) })
/** How a render that was handed over stands, as the nodes' queue tells it. */
export type AwayJob = z.infer<typeof job>

/** Thrown when the queue of the nodes cannot be asked now; it may be later. */
export class NodesAway extends Error {}

async function asked(path: string, init?: RequestInit): Promise<Response> {
  const reply = await fetch(ADDRESS + path, init).catch(() => null)
  if (!reply || reply.status >= 500) throw new NodesAway()
  return reply
}

/** Whether this Brimble's server was started with render nodes. */
export async function hasNodes(): Promise<boolean> {
  const reply = await asked('').catch(() => null)
  return reply?.ok === true && told.parse(await reply.json()).nodes
}

export async function standingAway(ids: readonly string[]): Promise<AwayJob[]> {
  return told.parse(await (await asked(`?ids=${ids.join(',')}`)).json()).jobs
}

/** What nodes have to be told besides what is in every job: the edit as text, or a bundle with what it needs. */
export type JobSource = { text: string } | { bundle: { fileName: string; sizeBytes: number } }

export async function postJob(
  { id, edit, shape, settings }: Render,
  name: string,
  frames: number,
  source: JobSource,
): Promise<void> {
  const reply = await asked('', {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({
      id,
      highlight: edit.highlight.name,
      name,
      frames,
      file: { shape, settings },
      at: 0,
      ...source,
    }),
  })
  if (!reply.ok) throw new Error(`the server said ${reply.status}`)
}

/** Leaves a bundle with the nodes; null when the server has nowhere to leave it. */
export async function putBundle(bundle: Blob): Promise<{ fileName: string; sizeBytes: number } | null> {
  const reply = await asked('/bundle', { method: 'PUT', body: bundle })
  if (reply.status === 409) return null
  return z.object({ fileName: z.string(), sizeBytes: z.number() }).parse(await reply.json())
}

/** Takes a job out of the nodes' queue; false when one is at work on it. */
export async function takeJobBack(id: string): Promise<boolean> {
  return z.object({ taken: z.boolean() }).parse(await (await asked(`?ids=${id}`, { method: 'DELETE' })).json()).taken
}
