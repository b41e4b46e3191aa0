import type { Fault, Remedy, Severity } from '@/core/findings/finding'
import { MICROS_PER_SECOND } from '@/core/time/micros'
import { formatBytes, formatRate } from '@/ui/format'
import { nameForRole } from '../edits'

const percent = (share: number) => `${Math.round(share * 100)} %`
const short = (text: string) => (text.length > 40 ? `${text.slice(0, 38)}…` : text)

/** A fault in words, with its number. */
export function faultWords(fault: Fault): string {
  switch (fault.kind) {
    case 'blown-up':
      return `${nameForRole(fault.role)} is blown up ${fault.factor.toFixed(2)}×`
    case 'shown-twice':
      return `${nameForRole(fault.role)} is there twice: ${percent(fault.share)} of it in ${fault.within} as well`
    case 'focus-cut':
      return `${percent(fault.share)} of what matters in ${fault.role} is cut off`
    case 'hidden':
      return `${percent(fault.share)} of what matters in ${fault.role} lies under an inset`
    case 'under-controls':
      return `${nameForRole(fault.what)}: ${percent(fault.share)} under “${fault.zone}”`
    case 'too-long':
      return `${(fault.overMicros / MICROS_PER_SECOND).toFixed(1)} s longer than it may be`
    case 'too-big':
      return `About ${formatBytes(fault.overBytes)} larger than it may be`
    case 'loudness':
      return `${fault.lufs < fault.targetLufs ? 'Quieter' : 'Louder'} than it should be: ${fault.lufs.toFixed(1)} LUFS, ${fault.targetLufs} is usual`
    case 'peak':
      return `Peaks at ${fault.peakDb.toFixed(1)} dBTP, over ${fault.mostDb} they may be clipped`
    case 'rate-mismatch':
      return `Recorded at ${formatRate(fault.recorded)}, goes out at ${formatRate(fault.output)}: movement will be uneven`
    case 'hard-to-read':
      return `“${short(fault.text)}”: ${Math.round(fault.perSecond)} characters a second`
    case 'does-not-fit':
      return fault.share > 0 ? `“${short(fault.text)}” fits only at ${percent(fault.share)} of its size` : `“${short(fault.text)}” does not fit`
  }
}

/** What a remedy's button says. */
export function remedyWords(remedy: Remedy): string {
  switch (remedy.kind) {
    case 'gain':
      return `${remedy.db > 0 ? '+' : '−'}${Math.abs(remedy.db).toFixed(1)} dB`
    case 'move-crop':
      return 'Move the crop'
    case 'own-rate':
      return 'As recorded'
    case 'smaller-file':
      return 'Smaller file'
    case 'lengthen-cue':
      return 'Let it stand longer'
  }
}

const SEVERITIES: Record<Severity, [one: string, many: string]> = { stop: ['stop', 'stops'], warn: ['warning', 'warnings'], note: ['note', 'notes'] }

/** How many there are of each, the worst first. */
export function countWords(severities: readonly Severity[]): string {
  const counts = (Object.keys(SEVERITIES) as Severity[]).flatMap((s) => {
    const count = severities.filter((other) => other === s).length
    return count > 0 ? [`${count} ${SEVERITIES[s][count === 1 ? 0 : 1]}`] : []
  })
  return counts.length > 0 ? counts.slice(0, 2).join(', ') : 'nothing'
}
