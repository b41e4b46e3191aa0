import type { Rect } from '../geometry/rect'
import type { CueId, PanelId, PassageId, TitleId } from '../model/ids'
import type { Correction } from '../model/passage'
import type { FrameRate } from '../time/frameRate'
import type { Micros } from '../time/micros'

/** *stop*: nobody would want it so; *warn*: look at it before it goes out; *note*: good to know. */
export type Severity = 'stop' | 'warn' | 'note'

/** What is wrong, with the number that says how much. Shares are 0..1. */
export type Fault =
  /** Output pixels per recorded one. */
  | { kind: 'blown-up'; role: string; factor: number }
  /** Share of a face's region that another panel shows as well. */
  | { kind: 'shown-twice'; role: string; within: string; share: number }
  /** Share of a region's focus that its crop leaves out. */
  | { kind: 'focus-cut'; role: string; share: number }
  /** Share of a panel's focus that lies under an inset. */
  | { kind: 'hidden'; role: string; share: number }
  /** Share of something that matters that lies under what an outlet lays over the picture. */
  | { kind: 'under-controls'; what: string; zone: string; share: number }
  | { kind: 'too-long'; overMicros: Micros }
  | { kind: 'too-big'; overBytes: number }
  /** Integrated, LUFS. */
  | { kind: 'loudness'; lufs: number; targetLufs: number }
  /** True peak, dBTP. */
  | { kind: 'peak'; peakDb: number; mostDb: number }
  | { kind: 'rate-mismatch'; recorded: FrameRate; output: FrameRate }
  /** Characters a second. */
  | { kind: 'hard-to-read'; cueId: CueId; text: string; perSecond: number }
  /** Share of the size asked for that words were set down to. */
  | { kind: 'does-not-fit'; what: 'title' | 'caption'; text: string; share: number }

/** What would put a finding right, in one action. */
export type Remedy =
  | { kind: 'move-crop'; passageId: PassageId; correction: Correction }
  | { kind: 'own-rate' }
  | { kind: 'smaller-file' }
  /** Of everything that is heard. */
  | { kind: 'gain'; db: number }
  | { kind: 'lengthen-cue'; cueId: CueId; toMicros: Micros }

/** A fault with where and when it is. */
export interface Finding {
  /** The same for the same fault at the same place, however large it is. */
  key: string
  severity: Severity
  fault: Fault
  /** Null: in every shape alike. */
  shapeId: string | null
  passageId: PassageId | null
  panelId: PanelId | null
  titleId?: TitleId
  /** Output time, end-exclusive. */
  fromMicros: Micros
  toMicros: Micros
  /** Px of the shape. */
  rect: Rect | null
  remedy: Remedy | null
}

const RANK: Record<Severity, number> = { stop: 0, warn: 1, note: 2 }

/** Worst first; alike ones in the order of time. */
export function worstFirst(findings: readonly Finding[]): Finding[] {
  return [...findings].sort((a, b) => RANK[a.severity] - RANK[b.severity] || a.fromMicros - b.fromMicros || a.key.localeCompare(b.key))
}

/** What a fault comes to, for telling whether it is still the one that was accepted: its number to two digits. */
export function causeOf({ key, fault }: Finding): string {
  const numbers = Object.values(fault).flatMap((v) => (typeof v === 'number' ? [v.toPrecision(2)] : []))
  return `${key} ${numbers.join(' ')}`.slice(0, 200)
}
