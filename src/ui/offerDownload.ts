import { fileSafe } from '@/core/output/fileName'
import { letGoOfUrl } from './letGoOfUrl'

/** Hands a file to the browser's downloads under its own name. */
export function offerDownload(file: Blob, name: string): void {
  const url = URL.createObjectURL(file)
  const link = document.createElement('a')
  link.href = url
  link.download = fileSafe(name)
  link.click()
  letGoOfUrl(url)
}
