import { z } from 'zod'
import { recordingId, highlightId, type PanelId } from '@/core/model/ids'
import { role } from '@/core/model/region'
import { twoBands } from '@/core/layout/starting'
import { STANDARD_SHAPES } from '@/core/model/shape'
import { toFractions } from '@/core/geometry/evenGrid'
import { toMicros } from '@/core/time/micros'
import { database } from '@/store/database'
import { createHighlight } from '@/store/highlights'
import { newId } from '@/core/model/ids'
import { addChosenFile } from '@/shared/recordings/addRecordings'

const pixels = z.object({ x: z.number(), y: z.number(), width: z.number(), height: z.number() })

/**
 * The demo shelf as it ships (public/demo/shelf.json): recordings, and highlights cut from them. Regions in px of the
 * frame, with the heads that looking along the highlight shows in them.
 */
const demoShelf = z.object({
  recordings: z.array(
    z.object({
      id: recordingId,
      file: z.string().regex(/^[\w-]+\.mp4$/),
      captions: z
        .string()
        .regex(/^[\w-]+\.vtt$/)
        .optional(),
      name: z.string(),
      recordedAt: z.iso.datetime(),
      highlights: z.array(
        z.object({
          id: highlightId,
          name: z.string(),
          inSeconds: z.number(),
          outSeconds: z.number(),
          setup: z.string(),
          layout: z.string(),
          shapes: z.array(z.string()),
          regions: z.array(z.object({ role, name: z.string(), bounds: pixels, head: pixels.optional() })),
          bands: z.tuple([role, role]),
          upperShare: z.number(),
        }),
      ),
    }),
  ),
})

/** Puts the demo recordings and highlights on the Shelf; those that are there already stay as they are. */
export async function openDemoShelf(): Promise<void> {
  const response = await fetch('/demo/shelf.json')
  const { recordings } = demoShelf.parse(await response.json())
  for (const demo of recordings) {
    if (await database().recordings.get(demo.id)) continue
    const blob = await (await fetch(`/demo/${demo.file}`)).blob()
    const file = new File([blob], demo.file, { type: 'video/mp4', lastModified: Date.parse(demo.recordedAt) })
    const captions = demo.captions
      ? new File([await (await fetch(`/demo/${demo.captions}`)).blob()], demo.captions, { type: 'text/vtt' })
      : null
    const added = await addChosenFile(
      { file, handle: null },
      { id: demo.id, name: demo.name, recordedAt: demo.recordedAt, captions },
    )
    if (!added.ok) throw new Error(`${demo.file}: ${added.failure.reason}`)
    for (const h of demo.highlights) {
      const [upper, lower] = h.bands
      await createHighlight(
        added.recording,
        {
          name: h.name,
          inMicros: toMicros(h.inSeconds),
          outMicros: toMicros(h.outSeconds),
          setupName: h.setup,
          layoutName: h.layout,
          shapes: STANDARD_SHAPES.filter((s) => h.shapes.includes(s.id)),
          regions: h.regions.map((r) => ({
            role: r.role,
            name: r.name,
            bounds: toFractions(r.bounds, added.recording.video),
            ...(r.head && { head: toFractions(r.head, added.recording.video) }),
          })),
          arrangement: twoBands(
            { id: newId<PanelId>(), role: upper },
            { id: newId<PanelId>(), role: lower },
            h.upperShare,
          ),
        },
        h.id,
      )
    }
  }
}
