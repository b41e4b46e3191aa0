import type { Fault, Finding, Remedy, Severity } from '@/core/findings/finding'
import { MICROS_PER_SECOND } from '@/core/time/micros'
import { formatBytes, formatRate, formatTime } from '@/ui/format'
import { nameForRole } from '@/core/model/region'

const percent = (share: number) => `${Math.round(share * 100)} %`
const short = (text: string) => (text.length > 40 ? `${text.slice(0, 38)}…` : text)

/** A fault in words, with its number. */
export function faultWords(fault: Fault): string {
  switch (fault.kind) {
    case 'blown-up':
      return `${nameForRole(fault.role)} is enlarged ${fault.factor.toFixed(2)}×`
    case 'shown-twice':
      return `${nameForRole(fault.role)} also shows in ${nameForRole(fault.within)} (${percent(fault.share)})`
    case 'focus-cut':
      return `${percent(fault.share)} of what matters in ${fault.role} is cut off`
    case 'head-cut':
      return `${percent(fault.share)} of the head in ${fault.role} is cut off`
    case 'read-cut':
      return `${percent(fault.share)} of ${fault.role} is cut off`
    case 'too-small':
      return `${nameForRole(fault.role)} is too small to read: ${percent(fault.share)} of its size on a screen`
    case 'leaves-region':
      return `${nameForRole(fault.role)} is not inside its region ${percent(fault.share)} of the time`
    case 'sliver':
      return `${fault.px} px of border or black along an edge of ${fault.role}`
    case 'uncovered':
      return `${percent(fault.share)} of the canvas is bare: ${fault.px.toLocaleString('en')} px`
    case 'handles-short':
      return `The join lacks ${fault.frames} ${fault.frames === 1 ? 'frame' : 'frames'} ${fault.side === 'after' ? 'after the first passage' : 'before the second passage'}`
    case 'source-missing':
      return `“${fault.fileName}” is missing`
    case 'long-line':
      return `“${short(fault.text)}”: ${fault.characters} characters in one line`
    case 'low-contrast':
      return `${nameForRole(fault.what)} is hard to see: contrast ${fault.ratio.toFixed(1)} : 1`
    case 'hidden':
      return `${percent(fault.share)} of what matters in ${fault.role} lies under an inset`
    case 'under-controls':
      return `${nameForRole(fault.what)}: ${percent(fault.share)} under “${fault.zone}”`
    case 'too-long':
      return `${(fault.overMicros / MICROS_PER_SECOND).toFixed(1)} s too long`
    case 'too-big':
      return `About ${formatBytes(fault.overBytes)} too large`
    case 'loudness':
      return `Too ${fault.lufs < fault.targetLufs ? 'quiet' : 'loud'}: ${fault.lufs.toFixed(1)} LUFS, target ${fault.targetLufs}`
    case 'peak':
      return `Peaks at ${fault.peakDb.toFixed(1)} dBTP, above ${fault.mostDb} they may clip`
    case 'rate-mismatch':
      return `Recorded at ${formatRate(fault.recorded)}, rendered at ${formatRate(fault.output)}: motion may stutter`
    case 'hard-to-read':
      return `“${short(fault.text)}”: ${Math.round(fault.perSecond)} characters a second`
    case 'no-clear-place':
      return 'No room for words or overlays clear of faces and text'
    case 'missing-glyphs':
      return `“${short(fault.text)}”: no font has ${[...fault.letters].map((letter) => `${letter} (U+${(letter.codePointAt(0) ?? 0).toString(16).toUpperCase().padStart(4, '0')})`).join(', ')}`
    case 'does-not-fit':
      return fault.share > 0
        ? `“${short(fault.text)}” fits only at ${percent(fault.share)} of its size`
        : `“${short(fault.text)}” does not fit`
  }
}

/** What a remedy's button says. */
export function remedyWords(remedy: Remedy): string {
  switch (remedy.kind) {
    case 'gain':
      if (remedy.db === 0) return 'Limit peaks'
      return `${remedy.db > 0 ? '+' : '−'}${Math.abs(remedy.db).toFixed(1)} dB${remedy.limitDb === null ? '' : ', peaks limited'}`
    case 'move-crop':
      return 'Move the crop'
    case 'tighten-region':
      return 'Tighten'
    case 'grow-region':
      return 'Grow to hold'
    case 'move-inset':
      return 'Move the inset'
    case 'lower-band':
      return 'Lower band'
    case 'swap-bands':
      return 'Swap the bands'
    case 'backdrop':
      return 'Blurred backdrop'
    case 'slip':
      return 'Slip'
    case 'shorten-join':
      return `Join of ${(remedy.toMicros / MICROS_PER_SECOND).toFixed(2)} s`
    case 'slow-down':
      return `${remedy.speedPercent} % speed`
    case 'own-rate':
      return 'As recorded'
    case 'smaller-file':
      return 'Smaller file'
    case 'limit-size':
      return `Keep under ${formatBytes(remedy.mostBytes)}`
    case 'end-at':
      return `End at ${formatTime(remedy.atMicros)}`
    case 'lengthen-cue':
      return 'Show it longer'
    case 'split-cue':
      return 'Split'
    case 'style':
      return { fit: 'Make it smaller', contrast: 'Add a background', place: 'Move it' }[remedy.why]
  }
}

const SEVERITIES: Record<Severity, [one: string, many: string]> = {
  stop: ['stop', 'stops'],
  warn: ['warning', 'warnings'],
  note: ['note', 'notes'],
}

/** How many there are of each, the worst first. */
export function countWords(severities: readonly Severity[]): string {
  const counts = (Object.keys(SEVERITIES) as Severity[]).flatMap((s) => {
    const count = severities.filter((other) => other === s).length
    return count > 0 ? [`${count} ${SEVERITIES[s][count === 1 ? 0 : 1]}`] : []
  })
  return counts.length > 0 ? counts.slice(0, 2).join(', ') : 'nothing'
}

/** What was put right, line by line: what was wrong, and what was done about it. */
export function putRightLines(done: readonly Finding[]): string[] {
  return [
    ...new Set(
      done.flatMap(({ fault, remedy, shapeId }) =>
        remedy ? [`${faultWords(fault)}${shapeId ? `, ${shapeId}` : ''}: ${inSentence(remedyWords(remedy))}`] : [],
      ),
    ),
  ]
}

const inSentence = (words: string) => words.charAt(0).toLowerCase() + words.slice(1)

/** Integrated or momentary loudness with its unit. */
export const loudnessFigure = (lufs: number) => (lufs <= -70 ? 'silent' : `${lufs.toFixed(1)} LUFS`)
