import { useLiveQuery } from 'dexie-react-hooks'
import { useStore } from 'zustand'
import { readWatchSettings, watchedFiles, watchedFolder, type WatchedFile, type WatchSettings } from '@/store/watched'
import { watchState, type WatchState } from './folderWatch'

export interface Watch {
  /** Null while no folder is watched. */
  folder: FileSystemDirectoryHandle | null
  files: WatchedFile[]
  settings: WatchSettings
  state: WatchState
}

/** How the watching of the recorder's folder goes; undefined until it is known. */
export function useWatch(): Watch | undefined {
  const kept = useLiveQuery(
    async () => ({ folder: await watchedFolder(), files: await watchedFiles(), settings: await readWatchSettings() }),
    [],
  )
  const state = useStore(watchState)
  return kept && { ...kept, state }
}
