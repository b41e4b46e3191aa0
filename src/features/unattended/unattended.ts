import { proxy, type Remote } from 'comlink'
import { writeBundle } from '@/core/interchange/bundle'
import type { Edit } from '@/core/model/edit'
import type { RenderId } from '@/core/model/ids'
import type { FinishedFile, RenderFailure, RenderSettings, RenderStages } from '@/core/model/render'
import type { Shape } from '@/core/model/shape'
import { chosenBackEnd, type BackEnd } from '@/core/output/backEnd'
import { nameBy } from '@/core/output/fileName'
import { MAX_AT_ONCE } from '@/core/output/renderGroups'
import { neededFiles, unattendedWish, wishedFiles, type NeededFile } from '@/core/output/unattended'
import type { SpeechOf } from '@/core/sound/ducking'
import { frameCount } from '@/core/time/frameRate'
import { outputLength } from '@/core/time/timeMap'
import { explain } from '@/diagnostics/note'
import { openBundle } from '@/media/bundle/openBundle'
import { deleteRenderFile } from '@/media/render/partFile'
import { withRenderWorker } from '@/media/render/renderInWorker'
import type { RenderProgress, WantedFile } from '@/media/render/renderJob'
import type { RenderReply, RenderWorker } from '@/media/workers/render.protocol'
import { offerDownload } from '@/ui/offerDownload'
import { filesMade } from '@/shared/rendering/filesOf'

/** A file to be made. */
export interface PlannedFile {
  /** Made of the edit, the shape and the settings: the same wherever and whenever the same file is planned. */
  id: RenderId
  shape: Shape
  settings: RenderSettings
  /** Its name without an ending. */
  name: string
  frames: number
}

export interface PlannedHighlight {
  /** Its place among all that were planned. */
  at: number
  /** The file that it came in, and which of the edits in it. */
  from: string
  name: string
  files: PlannedFile[]
  /** What did not come along and has to be found. */
  needs: NeededFile[]
  /** Whether bytes came along with it. */
  carries: boolean
}

export interface Plan {
  highlights: PlannedHighlight[]
  refused: { from: string; reason: string; detail: string }[]
}

export type Told =
  | ({ kind: 'progress' } & RenderProgress)
  | {
      kind: 'finished'
      id: RenderId
      frames: number
      framesTakenOver: number
      sizeBytes: number
      tookMs: number
      stages: RenderStages | null
      files: { name: string; sizeBytes: number }[]
    }
  | { kind: 'failed'; id: RenderId; failure: RenderFailure }
  | { kind: 'cancelled'; id: RenderId }

interface PlannedEdit {
  edit: Edit
  speechOf: SpeechOf
  carried: ReadonlyMap<string, Blob>
  wanted: readonly (WantedFile & { name: string })[]
}

interface Made {
  id: RenderId
  edit: Edit
  settings: RenderSettings
  file: Pick<FinishedFile, 'fileName' | 'extras'>
}

/**
 * Renders for a script that drives its page in place of a person; what it is called with and gives back is plain
 * data. Recordings come in by the page's inputs, files leave as downloads.
 */
export class Unattended {
  private readonly known: PlannedEdit[] = []
  private readonly made = new Map<RenderId, Made>()
  private backEnd: BackEnd | null = null
  private cancelling: (() => void) | null = null

  /** Reads files of highlights and says what would be made of them. Rejects when the wish makes no sense. */
  async plan(files: readonly File[], wish: unknown): Promise<Plan> {
    const read = unattendedWish.safeParse(wish)
    if (!read.success) throw new TypeError(read.error.issues.map((i) => `${i.path.join('.')}: ${i.message}`).join('; '))
    this.backEnd = read.data.backEnd
    const plan: Plan = { highlights: [], refused: [] }
    for (const file of files) {
      const opened = await openBundle(file)
      if (!opened.ok) {
        plan.refused.push({ from: file.name, reason: opened.reason, detail: opened.detail })
        continue
      }
      const carried = new Map(opened.files.map(({ of, blob }) => [of.id, blob]))
      for (const edit of opened.edits) {
        const wished = wishedFiles(edit, read.data)
        if (!wished.ok) {
          plan.refused.push({ from: file.name, reason: 'unknown-shape', detail: wished.unknownShape })
          continue
        }
        const wanted = await Promise.all(wished.wanted.map((w) => named(edit, w)))
        this.known.push({ edit, speechOf: opened.speechOf, carried, wanted })
        const length = outputLength(edit.highlight)
        plan.highlights.push({
          at: this.known.length - 1,
          from: file.name,
          name: edit.highlight.name,
          files: wanted.map((w) => ({ ...w, frames: frameCount(length, w.settings.frameRate) })),
          needs: neededFiles(edit).filter((f) => !carried.has(f.id)),
          carries: carried.size > 0,
        })
      }
    }
    return plan
  }

  /** A planned edit as a file of its own, for whoever renders it elsewhere. */
  alone(at: number): string {
    const { edit, speechOf } = this.planned(at)
    return writeBundle([edit], speechOf)
  }

  private planned(at: number): PlannedEdit {
    const known = this.known[at]
    if (!known) throw new RangeError(`no highlight ${at} was planned`)
    return known
  }

  /**
   * Makes files of a planned highlight; `media`: the bytes of what it needs, by id. Tells of each file's end, after
   * which its bytes can be asked for.
   */
  async render(
    at: number,
    ids: readonly string[],
    media: ReadonlyMap<string, Blob>,
    tell: (told: Told) => Promise<void>,
  ): Promise<void> {
    const planned = this.planned(at)
    const wanted = planned.wanted.filter((w) => ids.includes(w.id))
    const files = new Map([...planned.carried, ...media])
    const missing = neededFiles(planned.edit).find((f) => !files.has(f.id))
    for (let n = 0; n < wanted.length; n += MAX_AT_ONCE) {
      const group = wanted.slice(n, n + MAX_AT_ONCE)
      if (missing)
        for (const { id } of group)
          await tell({ kind: 'failed', id, failure: { reason: 'source-missing', fileName: missing.fileName } })
      else await this.renderGroup(planned, group, files, tell)
    }
  }

  private async renderGroup(
    { edit, speechOf }: PlannedEdit,
    group: PlannedEdit['wanted'],
    files: ReadonlyMap<string, Blob>,
    tell: (told: Told) => Promise<void>,
  ): Promise<void> {
    const left = new Map(group.map((w) => [w.id, w]))
    const end = async (id: RenderId, reply: RenderReply) => {
      const file = left.get(id)
      if (file && left.delete(id)) await tell(await this.ended(edit, file, reply))
    }
    try {
      await withRenderWorker(async (worker) => {
        this.cancelling = () => void worker.cancel()
        const wanted = group.map(({ id, shape, settings }) => ({ id, shape, settings }))
        await worker.render(
          { edit, backEnd: await this.backEndFor(worker), wanted, files, speechOf },
          proxy((progress) => void tell({ kind: 'progress', ...progress })),
          proxy(end),
        )
      })
    } catch (error) {
      for (const id of [...left.keys()])
        await end(id, {
          kind: 'failed',
          failure: { reason: 'broken', detail: explain('an unattended render', error) },
        })
    } finally {
      this.cancelling = null
    }
  }

  private async ended(
    edit: Edit,
    { id, name, settings }: PlannedEdit['wanted'][number],
    reply: RenderReply,
  ): Promise<Told> {
    if (reply.kind !== 'finished') return { ...reply, id }
    const { container, extras, frames, framesTakenOver, tookMs, stages } = reply.file
    const made = { id, edit, settings, file: { fileName: `${name}.${container}`, extras } }
    this.made.set(id, made)
    return {
      kind: 'finished',
      id,
      frames,
      framesTakenOver,
      tookMs,
      stages,
      sizeBytes: reply.sizeBytes,
      files: (await filesMade(made, made.file)).map(({ name, blob }) => ({ name, sizeBytes: blob.size })),
    }
  }

  private async backEndFor(worker: Pick<Remote<RenderWorker>, 'measure'>): Promise<BackEnd> {
    return (this.backEnd ??= chosenBackEnd('measured', await worker.measure()))
  }

  /** Hands one of the files that a render made to the browser's downloads. */
  async download(id: string, name: string): Promise<void> {
    const made = this.made.get(id as RenderId)
    const file = made && (await filesMade(made, made.file)).find((f) => f.name === name)
    if (!file) throw new RangeError(`${id} did not make ${name}`)
    offerDownload(file.blob, name)
  }

  /** Lets go of what a render made. */
  async forget(id: string): Promise<void> {
    if (this.made.delete(id as RenderId)) await deleteRenderFile(id)
  }

  /** Ends the render that is under way; its files end as cancelled. */
  cancel(): void {
    this.cancelling?.()
  }
}

async function named(
  edit: Edit,
  { shape, settings }: { shape: Shape; settings: RenderSettings },
): Promise<PlannedEdit['wanted'][number]> {
  const bytes = await crypto.subtle.digest('SHA-256', new TextEncoder().encode(JSON.stringify([edit, shape, settings])))
  const id = [...new Uint8Array(bytes).slice(0, 10)].map((b) => b.toString(16).padStart(2, '0')).join('') as RenderId
  return { id, shape, settings, name: nameBy('{highlight} {shape}', { edit, shape, outletName: null }, 1, '') }
}
