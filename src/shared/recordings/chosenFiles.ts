/** A file a person chose, with the handle by which it can be opened again later, where the browser gives one. */
export interface ChosenFile {
  file: File
  handle: FileSystemFileHandle | null
}

/** Opens the system's file dialog; nothing when it is closed without a choice. */
export async function chooseFiles(multiple: boolean): Promise<ChosenFile[]> {
  if (!window.showOpenFilePicker) return chooseByInput(multiple)
  try {
    const handles = await window.showOpenFilePicker({ multiple })
    return await Promise.all(handles.map(async (handle) => ({ file: await handle.getFile(), handle })))
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') return []
    throw error
  }
}

function chooseByInput(multiple: boolean): Promise<ChosenFile[]> {
  return new Promise((resolve) => {
    const input = document.createElement('input')
    input.type = 'file'
    input.multiple = multiple
    input.onchange = () => resolve([...(input.files ?? [])].map((file) => ({ file, handle: null })))
    input.oncancel = () => resolve([])
    input.click()
  })
}

/** A folder a person chose: the handle by which it can be read again, or its files by their path in it. */
export type ChosenFolder =
  { name: string; handle: FileSystemDirectoryHandle } | { name: string; files: ReadonlyMap<string, File> }

/** Opens the system's folder dialog; null when it is closed without a choice. */
export async function chooseFolder(): Promise<ChosenFolder | null> {
  if (!window.showDirectoryPicker) return chooseFolderByInput()
  try {
    const handle = await window.showDirectoryPicker({ mode: 'read' })
    return { name: handle.name, handle }
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') return null
    throw error
  }
}

function chooseFolderByInput(): Promise<ChosenFolder | null> {
  return new Promise((resolve) => {
    const input = document.createElement('input')
    input.type = 'file'
    input.webkitdirectory = true
    input.onchange = () => {
      const files = [...(input.files ?? [])]
      const name = files[0]?.webkitRelativePath.split('/')[0]
      resolve(
        name === undefined
          ? null
          : { name, files: new Map(files.map((file) => [file.webkitRelativePath.slice(name.length + 1), file])) },
      )
    }
    input.oncancel = () => resolve(null)
    input.click()
  })
}

/** What a drop brings: files with handles where the browser gives them. Folders are left out. */
export async function droppedFiles(items: DataTransferItemList): Promise<ChosenFile[]> {
  const entries = [...items]
    .filter((item) => item.kind === 'file')
    .map((item) => ({
      file: item.getAsFile(),
      entry: item.webkitGetAsEntry(),
      handle: 'getAsFileSystemHandle' in item ? item.getAsFileSystemHandle() : null,
    }))
  const chosen = entries.map(async ({ file, entry, handle }): Promise<ChosenFile[]> => {
    if (!file || entry?.isDirectory) return []
    const found = await handle?.catch(() => null)
    return [{ file, handle: found instanceof FileSystemFileHandle ? found : null }]
  })
  return (await Promise.all(chosen)).flat()
}
