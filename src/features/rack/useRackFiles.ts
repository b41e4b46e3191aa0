import { useSnackbar } from 'notistack'
import { writeRackFile, type Filed } from '@/core/interchange/rackFile'
import { readForeign } from '@/media/read/readForeign'
import { keptFonts } from '@/store/fontFiles'
import { addFiled, toFile } from '@/store/rackFiles'
import { offerDownload } from '@/ui/offerDownload'
import { unreadMessage } from '@/shared/foreignFiles'
import { importWords } from './wording'

export type Exporter = (records: Partial<Filed['records']>, name: string) => void

/** Files of the rack: written with all that their records refer to, and read with what came of it told. */
export function useRackFiles(): { write: Exporter; read: (files: readonly File[]) => Promise<void> } {
  const { enqueueSnackbar } = useSnackbar()
  const write: Exporter = (records, name) =>
    void toFile(records).then((filed) =>
      offerDownload(new Blob([writeRackFile(filed)], { type: 'application/json' }), `${name}.brimble.json`),
    )
  const read = async (files: readonly File[]) => {
    for (const file of files) {
      const fonts = (await keptFonts()).map((f) => f.name)
      const read = await readForeign(file, (reader) => reader.rack(file, fonts))
      if (!read.ok) {
        enqueueSnackbar(unreadMessage(file.name, read.reason), { variant: 'warning', autoHideDuration: 20_000 })
        continue
      }
      const result = read.value
      const merge = result.ok ? await addFiled(result.filed) : null
      const clean = result.ok && result.remarks.length === 0
      enqueueSnackbar(importWords(file.name, result, merge), {
        variant: clean ? 'default' : 'warning',
        autoHideDuration: clean ? 8000 : 20_000,
        style: { whiteSpace: 'pre-line' },
      })
    }
  }
  return { write, read }
}
