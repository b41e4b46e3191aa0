import { readFileSync } from 'node:fs'

const SAMPLE_MS = 50

/**
 * Watches the memory of a browser's tabs, workers included. *Own* is what the largest tab's process has for itself: private pages, with
 * those swapped out, and memory that it shares with the browser to hand pictures over (`RssAnon` + `VmSwap` + `RssShmem`); the pages of the
 * browser's program file, which every tab has, are left out. *Resident* is all of it (`VmRSS`), program file and all.
 * @param {{ send: (method: 'SystemInfo.getProcessInfo') => Promise<{ processInfo: { type: string, id: number }[] }> }} browserSession
 */
export function watchMemory(browserSession) {
  let peak = { ownMb: 0, residentMb: 0 }
  const look = async () => {
    const { processInfo } = await browserSession.send('SystemInfo.getProcessInfo')
    for (const { id } of processInfo.filter((p) => p.type === 'renderer')) {
      const now = memoryOf(id)
      peak = { ownMb: Math.max(peak.ownMb, now.ownMb), residentMb: Math.max(peak.residentMb, now.residentMb) }
    }
  }
  const timer = setInterval(() => void look().catch(() => {}), SAMPLE_MS)
  return {
    /** The highest so far, MB, since it was last asked for. */
    async peak() {
      await look()
      const highest = peak
      peak = { ownMb: 0, residentMb: 0 }
      return highest
    },
    stop: () => clearInterval(timer),
  }
}

function memoryOf(processId) {
  try {
    const status = readFileSync(`/proc/${processId}/status`, 'utf8')
    const megabytes = (name) => Number(new RegExp(`${name}:\\s+(\\d+)`).exec(status)?.[1] ?? 0) / 1024
    return { ownMb: megabytes('RssAnon') + megabytes('VmSwap') + megabytes('RssShmem'), residentMb: megabytes('VmRSS') }
  } catch {
    return { ownMb: 0, residentMb: 0 }
  }
}
