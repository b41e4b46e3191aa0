import { title } from '@/core/model/record'
import type { RecordingId } from '@/core/model/ids'
import type { Recording } from '@/core/model/recording'
import { dateInName } from '@/core/time/dateInName'
import { nullOnError } from '@/diagnostics/note'
import { inspector } from '@/media/inspect/inspector'
import type { ProbeFailure, ProbeResult } from '@/media/inspect/probe'
import { addRecording, type FilePlace, type KeepResult } from '@/store/recordings'
import type { ChosenFile } from './chosenFiles'
import { queueStrip } from './useStrip'
import { wording } from './wording'

/** Files up to this size are copied into the browser; larger ones are linked, where the browser lets a page link. */
const COPY_UP_TO_BYTES = 200_000_000

export type AddResult =
  /** `file`: what is read from now on, which can be a mended copy of what was chosen. */
  | { ok: true; recording: Recording; file: File; kept: KeepResult }
  | { ok: false; fileName: string; failure: ProbeFailure }

export interface AddOptions {
  id?: RecordingId
  name?: string
  recordedAt?: string
  /** The file of captions that lay beside it. */
  captions?: File | null
  /** Said when it is a copy that ffmpeg made of what this browser cannot read. */
  copied?: { fromHdr: boolean }
}

/** Looks into a file and puts it on the Shelf, with a copy of it or a link to it. */
export async function addChosenFile(chosen: ChosenFile, options: AddOptions = {}): Promise<AddResult> {
  const { file, handle, probed } = await probeFile(chosen)
  if (!probed.ok) return { ok: false, fileName: file.name, failure: probed }
  const linked = handle !== null && file.size > COPY_UP_TO_BYTES
  const place = placeOf(linked ? handle : null)
  const { recording, kept } = await addRecording(
    {
      name: options.name ?? nameFromFile(file.name),
      fileName: file.name.slice(0, 1000),
      sizeBytes: file.size,
      recordedAt: options.recordedAt ?? madeAt(file).toISOString(),
      durationMicros: probed.durationMicros,
      originMicros: probed.originMicros,
      video: probed.video,
      sound: probed.sound,
      notices: options.copied ? [...probed.notices, { kind: 'working-copy', ...options.copied }] : probed.notices,
      source: linked ? 'linked' : 'kept',
    },
    file,
    place,
    options.id,
    options.captions,
  )
  queueStrip(recording, file)
  return { ok: true, recording, file, kept }
}

/**
 * Looks into a file. One whose clock begins anew is taken with a clock that goes on, which is a copy: it has no place
 * of its own then.
 */
export async function probeFile({ file, handle }: ChosenFile): Promise<ChosenFile & { probed: ProbeResult }> {
  const mended = await inspector().mendClock(file).catch(nullOnError('mending a clock'))
  if (!mended) return { file, handle, probed: await inspector().probe(file) }
  const copy = new File([mended], file.name, { lastModified: file.lastModified })
  const probed = await inspector().probe(copy)
  if (probed.ok) probed.notices.push({ kind: 'clock-mended' })
  return { file: copy, handle: null, probed }
}

/** When a recording was made: by its name, else when its file was written. */
const madeAt = ({ name, lastModified }: File): Date => dateInName(name, new Date()) ?? new Date(lastModified)

export const placeOf = (handle: FileSystemFileHandle | null): FilePlace =>
  handle ? { kind: 'linked', handle } : { kind: 'kept' }

function nameFromFile(fileName: string): string {
  const bare = fileName.replace(/\.[^.]{1,5}$/, '').replace(/_+/g, ' ')
  const named = title.safeParse(bare)
  return named.success ? named.data : wording.recording
}
