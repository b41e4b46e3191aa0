import { useEffect } from 'react'

/** Says in the browser's tab what is open, before the name of the screen. */
export function useTabTitle(name: string, screen: string): void {
  useEffect(() => {
    document.title = `${name} · ${screen} · Brimble`
  }, [name, screen])
}
