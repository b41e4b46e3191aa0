import { readFileSync } from 'node:fs'

const SAMPLE_MS = 50
const NOTHING = { privateMb: 0, ownMb: 0, residentMb: 0 }

/**
 * Watches the memory of a browser's tabs, workers included; of the largest tab's process at its highest. *Private* is
 * what nobody else has:
 * `RssAnon` + `VmSwap`, which the browser's own task manager shows as a tab's memory footprint. *Own* adds what the
 * tab shares with the browser
 * to hand pictures over (`RssShmem`). *Resident* is all of it (`VmRSS`), with the pages of the browser's program
 * file, which every tab has.
 * @param {{ send: (method: 'SystemInfo.getProcessInfo') => Promise<{ processInfo: { type: string, id: number }[] }>
 * }} browserSession
 */
export function watchMemory(browserSession) {
  let peak = NOTHING
  const look = async () => {
    const { processInfo } = await browserSession.send('SystemInfo.getProcessInfo')
    for (const { id } of processInfo.filter((p) => p.type === 'renderer')) {
      const now = memoryOf(id)
      peak = {
        privateMb: Math.max(peak.privateMb, now.privateMb),
        ownMb: Math.max(peak.ownMb, now.ownMb),
        residentMb: Math.max(peak.residentMb, now.residentMb),
      }
    }
  }
  const timer = setInterval(() => void look().catch(() => {}), SAMPLE_MS)
  return {
    /** The highest so far, MB, since it was last asked for. */
    async peak() {
      await look()
      const highest = peak
      peak = NOTHING
      return highest
    },
    stop: () => clearInterval(timer),
  }
}

function memoryOf(processId) {
  try {
    const status = readFileSync(`/proc/${processId}/status`, 'utf8')
    const megabytes = (name) => Number(new RegExp(`${name}:\\s+(\\d+)`).exec(status)?.[1] ?? 0) / 1024
    const privateMb = megabytes('RssAnon') + megabytes('VmSwap')
    return { privateMb, ownMb: privateMb + megabytes('RssShmem'), residentMb: megabytes('VmRSS') }
  } catch {
    return NOTHING
  }
}
