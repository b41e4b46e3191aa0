'use client'

import { useSnackbar } from 'notistack'
import { useEffect } from 'react'
import { RestoreDialog } from './backup/RestoreDialog'
import { droppedFiles } from '@/shared/recordings/chosenFiles'
import { useAdding } from './useAdding'
import { wording } from './wording'

/**
 * Takes files that are dropped on any screen onto the Shelf: the browser would put the file in the application's
 * place. A screen that does something else with them takes them first.
 */
export function DropAnywhere() {
  const { add, problems, dismiss, backup, doneWithBackup } = useAdding()
  const { enqueueSnackbar } = useSnackbar()
  useEffect(() => {
    const holdsFiles = (event: DragEvent) => event.dataTransfer?.types.includes('Files') ?? false
    const over = (event: DragEvent) => {
      if (!holdsFiles(event) || event.defaultPrevented) return
      event.preventDefault()
      if (event.dataTransfer) event.dataTransfer.dropEffect = 'copy'
    }
    const drop = (event: DragEvent) => {
      if (!holdsFiles(event) || event.defaultPrevented || !event.dataTransfer) return
      event.preventDefault()
      void droppedFiles(event.dataTransfer.items).then(async (files) => {
        if (files.length === 0) return
        const what = files.length === 1 ? `“${files[0]?.file.name}”` : `${files.length} files`
        enqueueSnackbar(wording.takingOntoTheShelf(what))
        const added = await add(files)
        if (added > 0) enqueueSnackbar(wording.onTheShelfNow(added))
      })
    }
    window.addEventListener('dragover', over)
    window.addEventListener('drop', drop)
    return () => {
      window.removeEventListener('dragover', over)
      window.removeEventListener('drop', drop)
    }
  }, [add, enqueueSnackbar])
  useEffect(() => {
    for (const { id, text } of problems) {
      enqueueSnackbar(text, { key: id, variant: 'error', autoHideDuration: 20_000, preventDuplicate: true })
      dismiss(id)
    }
  }, [problems, dismiss, enqueueSnackbar])
  return backup && <RestoreDialog file={backup} onClose={doneWithBackup} />
}
