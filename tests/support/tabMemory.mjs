import { readFileSync } from 'node:fs'

/**
 * Peak resident memory of a browser's largest tab so far, MB, as the kernel counts it.
 * @param {{ send: (method: 'SystemInfo.getProcessInfo') => Promise<{ processInfo: { type: string, id: number }[] }> }} browserSession
 */
export async function peakMemoryMb(browserSession) {
  const { processInfo } = await browserSession.send('SystemInfo.getProcessInfo')
  const peaks = processInfo.filter((p) => p.type === 'renderer').map((p) => Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${p.id}/status`, 'utf8'))?.[1] ?? 0) / 1024)
  return Math.max(...peaks)
}
