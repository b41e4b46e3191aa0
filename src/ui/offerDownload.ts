import { letGoOfUrl } from './letGoOfUrl'

/** A name that every file system takes. */
export function fileSafe(name: string): string {
  const safe = name
    .replace(/[\u0000-\u001f<>:"/\\|?*]/g, '')
    .replace(/[. ]+$/, '')
    .slice(0, 120)
  return safe || 'untitled'
}

/** Hands a file to the browser's downloads under its own name. */
export function offerDownload(file: Blob, name: string): void {
  const url = URL.createObjectURL(file)
  const link = document.createElement('a')
  link.href = url
  link.download = fileSafe(name)
  link.click()
  letGoOfUrl(url)
}
