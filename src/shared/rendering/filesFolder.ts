import type { RenderId } from '@/core/model/ids'
import type { Render } from '@/core/model/render'
import { freeFileName } from '@/core/output/fileName'
import { quietly } from '@/diagnostics/note'
import type { NamedBlob } from '@/media/zip/zipFiles'
import { chosenFolder, forgetFolder, keepFolder } from '@/store/folders'
import { renderById, setRenderState } from '@/store/renders'
import { filesOf } from './filesOf'

/** The folder that finished files go to, where the browser can write to one. */
const FOLDER = 'files'

export const canWriteToFolders = () => typeof window !== 'undefined' && 'showDirectoryPicker' in window

export const filesFolder = () => chosenFolder(FOLDER)
export const forgetFilesFolder = () => forgetFolder(FOLDER)

/** Lets the person choose; false when they did not. */
export async function chooseFilesFolder(): Promise<boolean> {
  try {
    const handle = await window.showDirectoryPicker?.({ mode: 'readwrite' })
    if (!handle) return false
    await keepFolder(FOLDER, handle)
    return true
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') return false
    throw error
  }
}

/**
 * Puts a finished render into the chosen folder, if there is one that may be written to. What cannot be put there now
 * is told of in the Outbox.
 */
export async function saveFinished(id: RenderId): Promise<void> {
  const folder = await filesFolder()
  const render = await renderById(id)
  if (!folder || !render || (await folder.queryPermission({ mode: 'readwrite' })) !== 'granted') return
  await putInto(folder, render).catch(quietly('the folder of finished files'))
}

/**
 * Puts all of these into the chosen folder, asking for leave where the browser wants it: call it from a click. How
 * many could not be.
 */
export async function saveAllFinished(renders: readonly Render[]): Promise<{ saved: number; left: number }> {
  const folder = await filesFolder()
  if (!folder || (await folder.requestPermission({ mode: 'readwrite' })) !== 'granted')
    return { saved: 0, left: renders.length }
  let saved = 0
  for (const render of renders)
    if (
      await putInto(folder, render).then(
        () => true,
        () => false,
      )
    )
      saved++
  return { saved, left: renders.length - saved }
}

async function putInto(folder: FileSystemDirectoryHandle, render: Render): Promise<void> {
  if (render.state.kind !== 'finished') return
  const files = await filesOf(render)
  const [video] = files
  if (!video) throw new Error('the file is gone')
  const taken = new Set<string>()
  for await (const name of folder.keys()) taken.add(name.toLowerCase())
  const { stem, ending } = parted(video.name)
  const savedAs = freeFileName(stem, ending, taken)
  const savedStem = parted(savedAs).stem
  for (const file of files) await write(folder, { ...file, name: `${savedStem}.${parted(file.name).ending}` })
  await setRenderState(render.id, { ...render.state, file: { ...render.state.file, savedAs } })
}

function parted(name: string): { stem: string; ending: string } {
  const dot = name.lastIndexOf('.')
  return { stem: name.slice(0, dot), ending: name.slice(dot + 1) }
}

/** The browser writes beside the file and puts it in its place when it is whole: nothing half-done is ever there. */
async function write(folder: FileSystemDirectoryHandle, { name, blob }: NamedBlob): Promise<void> {
  const writable = await (await folder.getFileHandle(name, { create: true })).createWritable()
  try {
    await blob.stream().pipeTo(writable)
  } catch (error) {
    await folder.removeEntry(name).catch(quietly('the folder of finished files', 'NotFoundError'))
    throw error
  }
}
