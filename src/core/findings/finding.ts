import type { Rect } from '../geometry/rect'
import type { Backdrop } from '../model/backdrop'
import type { CueId, InsetId, LayoutId, PanelId, PassageId, RegionId, SetupId, TitleId } from '../model/ids'
import type { Anchor } from '../model/inset'
import type { Arrangement } from '../model/layout'
import type { Correction } from '../model/passage'
import type { TextStyle } from '../model/textStyle'
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
  /** Share that a region's crop leaves out: of its focus, of a head in it, of what is read. */
  | { kind: 'focus-cut' | 'head-cut' | 'read-cut'; role: string; share: number }
  /** Letters are this large, of how large they were on the screen. */
  | { kind: 'too-small'; role: string; share: number }
  /** Share of the moments that were looked at in which somebody is not inside the region. */
  | { kind: 'leaves-region'; role: string; share: number }
  /** Recorded pixels of border or black along the widest of a crop's edges. */
  | { kind: 'sliver'; role: string; px: number }
  /** Canvas pixels with neither panel, words' area nor a backdrop that somebody chose, and their share of it. */
  | { kind: 'uncovered'; px: number; share: number }
  /** Share of what must be seen in a panel that lies under an inset. */
  | { kind: 'hidden'; role: string; share: number }
  /** Share of something that matters that lies under what an outlet lays over the picture. */
  | { kind: 'under-controls'; what: string; zone: string; share: number }
  | { kind: 'too-long'; overMicros: Micros }
  | { kind: 'too-big'; overBytes: number }
  /** Frames that a join needs from beyond a cut and that its recording does not have. */
  | { kind: 'handles-short'; side: 'before' | 'after'; frames: number }
  /** Integrated, LUFS. */
  | { kind: 'loudness'; lufs: number; targetLufs: number }
  /** True peak, dBTP. */
  | { kind: 'peak'; peakDb: number; mostDb: number }
  | { kind: 'rate-mismatch'; recorded: FrameRate; output: FrameRate }
  /** Characters a second. */
  | { kind: 'hard-to-read'; cueId: CueId; text: string; perSecond: number }
  /** Characters in the longest line. */
  | { kind: 'long-line'; cueId: CueId; text: string; characters: number }
  /** Luminance of letters against what is right behind them (WCAG 2.2), 1..21. */
  | { kind: 'low-contrast'; what: 'title' | 'captions'; ratio: number }
  /** Share of the size asked for that words were set down to. */
  | { kind: 'does-not-fit'; what: 'title' | 'caption'; text: string; share: number }
  /** Words or marks for which there is no place that is clear of faces and of what is read. */
  | { kind: 'no-clear-place' }
  /** Letters that no font has: gaps, or boxes, stand for them. */
  | { kind: 'missing-glyphs'; what: 'title' | 'caption'; text: string; letters: string }
  | { kind: 'source-missing'; fileName: string }

/** What would put a finding right, in one action. */
export type Remedy =
  | { kind: 'move-crop'; passageId: PassageId; correction: Correction }
  | { kind: 'tighten-region' | 'grow-region'; setupId: SetupId; regionId: RegionId; bounds: Rect }
  | {
      kind: 'move-inset'
      layoutId: LayoutId
      shapeId: string
      arrangement: Arrangement
      insetId: InsetId
      anchor: Anchor
    }
  /** A band made lower, so that less is asked of its pixels. */
  | { kind: 'lower-band'; layoutId: LayoutId; shapeId: string; arrangement: Arrangement }
  /** The other way round from top to bottom. */
  | { kind: 'swap-bands'; layoutId: LayoutId; shapeId: string; arrangement: Arrangement }
  | { kind: 'backdrop'; layoutId: LayoutId; backdrop: Backdrop }
  | { kind: 'slip'; passageId: PassageId; byMicros: Micros }
  | { kind: 'shorten-join'; passageId: PassageId; toMicros: Micros }
  | { kind: 'slow-down'; passageId: PassageId; speedPercent: number }
  | { kind: 'own-rate' }
  | { kind: 'smaller-file' }
  /** A bitrate that keeps files under a size. */
  | { kind: 'limit-size'; mostBytes: number }
  /** What comes after an output time is left out. */
  | { kind: 'end-at'; atMicros: Micros }
  /** Of everything that is heard; with a limit, peaks are held under it, dBTP. */
  | { kind: 'gain'; db: number; limitDb: number | null }
  | { kind: 'lengthen-cue'; cueId: CueId; toMicros: Micros }
  | { kind: 'split-cue'; cueId: CueId; at: number; newId: CueId }
  /** Of one title, or (null) of captions. */
  | { kind: 'style'; why: 'fit' | 'contrast' | 'place'; titleId: TitleId | null; change: Partial<TextStyle> }

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
  regionId?: RegionId
  titleId?: TitleId
  /** Output time, end-exclusive. */
  fromMicros: Micros
  toMicros: Micros
  /** Where it is so in parts only: those, in order. */
  times?: { fromMicros: Micros; toMicros: Micros }[]
  /** Px of the shape. */
  rect: Rect | null
  remedy: Remedy | null
}

/** A fault with what might put it right, the best first; `core/findings/remedies` chooses. */
export type FindingDraft = Omit<Finding, 'remedy'> & { remedies: Remedy[] }

const RANK: Record<Severity, number> = { stop: 0, warn: 1, note: 2 }

export const isWorse = (a: Severity, than: Severity) => RANK[a] < RANK[than]

/** Worst first; alike ones in the order of time. */
export function worstFirst<T extends Pick<Finding, 'severity' | 'fromMicros' | 'key'>>(findings: readonly T[]): T[] {
  return [...findings].sort(
    (a, b) => RANK[a.severity] - RANK[b.severity] || a.fromMicros - b.fromMicros || a.key.localeCompare(b.key),
  )
}

/** What a fault comes to, for telling whether it is still the one that was accepted: its number to two digits. */
export function causeOf({ key, fault }: Pick<Finding, 'key' | 'fault'>): string {
  const numbers = Object.values(fault).flatMap((v) => (typeof v === 'number' ? [v.toPrecision(2)] : []))
  return `${key} ${numbers.join(' ')}`.slice(0, 200)
}

/** Whether a remedy may be taken along with others unasked: it leaves nothing out and turns nothing round. */
export function isSafe({ kind }: Remedy): boolean {
  return kind !== 'end-at' && kind !== 'swap-bands' && kind !== 'slow-down'
}

/** What a remedy changes: two that change the same thing cannot both be done. */
export function targetOf(remedy: Remedy): string {
  switch (remedy.kind) {
    case 'move-crop':
      return `crop ${remedy.passageId} ${remedy.correction.panelId} ${remedy.correction.shapeId}`
    case 'tighten-region':
    case 'grow-region':
      return `region ${remedy.setupId} ${remedy.regionId}`
    case 'move-inset':
    case 'lower-band':
    case 'swap-bands':
      return `arrangement ${remedy.layoutId} ${remedy.shapeId}`
    case 'backdrop':
      return `backdrop ${remedy.layoutId}`
    case 'slip':
    case 'shorten-join':
    case 'slow-down':
      return `time ${remedy.passageId}`
    case 'lengthen-cue':
    case 'split-cue':
      return `cue ${remedy.cueId}`
    case 'style':
      return `${remedy.why} ${remedy.titleId ?? 'captions'}`
    case 'smaller-file':
    case 'limit-size':
      return 'size'
    case 'own-rate':
    case 'end-at':
    case 'gain':
      return remedy.kind
  }
}
