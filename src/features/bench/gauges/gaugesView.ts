import type { Finding } from '@/core/findings/finding'
import type { Looked } from './useFindings'

/** What was found wrong, and what of it is pointed at. */
export interface GaugesView {
  /** What was found when it was looked over last; null before the first time. */
  looked: Looked | null
  /** Files that could not be read while they were played, by id. */
  unreadable: ReadonlySet<string> | null
  /** The finding whose place is shown. */
  pointedAt: Finding | null
}

export const NEW_GAUGES_VIEW: GaugesView = { looked: null, unreadable: null, pointedAt: null }
