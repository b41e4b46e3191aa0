import { useEffect, useState } from 'react'
import { letGoOfUrl } from './letGoOfUrl'

/** An object URL for a blob while it is shown. */
export function useBlobUrl(blob: Blob | null | undefined): string | null {
  const [url, setUrl] = useState<string | null>(null)
  useEffect(() => {
    if (!blob) return
    const made = URL.createObjectURL(blob)
    setUrl(made)
    return () => {
      letGoOfUrl(made)
      setUrl(null)
    }
  }, [blob])
  return url
}
