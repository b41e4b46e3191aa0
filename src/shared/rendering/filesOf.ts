import { captionFilesOf } from '@/core/interchange/captionsOf'
import type { FinishedFile, Render } from '@/core/model/render'
import { isBeside } from '@/core/output/renderSettings'
import { openRenderFile } from '@/media/render/partFile'
import type { NamedBlob } from '@/media/zip/zipFiles'

const ENDINGS = { poster: 'png', loop: 'gif' } as const

/**
 * All that belongs to a finished render, under the names it is saved by: the file first, then stills, loops and
 * captions beside it. Nothing where the file is gone.
 */
export async function filesOf(render: Render): Promise<NamedBlob[]> {
  return render.state.kind === 'finished' ? filesMade(render, render.state.file) : []
}

/** The same for what a render has just made. */
export async function filesMade(
  render: Pick<Render, 'id' | 'edit' | 'settings'>,
  { fileName, extras }: Pick<FinishedFile, 'fileName' | 'extras'>,
): Promise<NamedBlob[]> {
  const video = await openRenderFile(render.id)
  if (!video) return []
  const beside = (ending: string) => fileName.replace(/\.[^.]+$/, `.${ending}`)
  const files: NamedBlob[] = [{ name: fileName, blob: video }]
  for (const { kind } of extras) {
    const blob = await openRenderFile(`${render.id}.${kind}`)
    if (blob) files.push({ name: beside(ENDINGS[kind]), blob })
  }
  if (isBeside(render.settings.captions))
    for (const { ending, type, text } of captionFilesOf(render.edit))
      files.push({ name: beside(ending), blob: new Blob([text], { type }) })
  return files
}
