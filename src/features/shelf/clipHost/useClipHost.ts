import { useCallback, useEffect, useRef, useState } from 'react'
import { takeIn, type TakenIn } from '../takeIn'
import type { ClipFailure, ClipHost, Listed } from './clipHost'

type List = Extract<Listed, { ok: true }>

/** Looking at what a clip host has, and getting it. */
export function useClipHost(host: ClipHost, onTakenIn: (taken: TakenIn) => void) {
  const [listed, setListed] = useState<List | null>(null)
  const [problem, setProblem] = useState<ClipFailure | null>(null)
  const [getting, setGetting] = useState<{ n: number; of: number; share: number } | null>(null)
  const stop = useRef<AbortController | null>(null)
  const look = useCallback(
    (month?: string) => {
      void host.list(month).then((answer) => {
        setListed((known) => (answer.ok ? answer : known))
        setProblem(answer.ok ? null : answer.reason)
      })
    },
    [host],
  )
  useEffect(() => {
    look()
    return () => stop.current?.abort()
  }, [look])

  /**
   * Gets clips one after the other and takes them in; ends at the first that does not come. The addresses that are
   * left.
   */
  const get = async (addresses: readonly string[]): Promise<string[]> => {
    const controller = new AbortController()
    stop.current = controller
    setProblem(null)
    for (const [n, address] of addresses.entries()) {
      const at = { n: n + 1, of: addresses.length }
      setGetting({ ...at, share: 0 })
      const got = await host.fetch(address, (share) => setGetting({ ...at, share }), controller.signal)
      if (!got.ok) {
        setProblem(got.reason)
        setGetting(null)
        return addresses.slice(n)
      }
      onTakenIn(
        await takeIn({ file: got.file, handle: null }, null, {
          name: got.title.slice(0, 200) || got.file.name,
          recordedAt: got.recordedAt,
        }),
      )
    }
    setGetting(null)
    return []
  }
  return { listed, look, getting, get, cancel: () => stop.current?.abort(), problem }
}
