import { createContext, useContext } from 'react'
import { useStore } from 'zustand'
import { createStore, type StoreApi } from 'zustand/vanilla'
import type { MomentId } from '@/core/model/ids'
import type { Recording } from '@/core/model/recording'
import type { Spotting } from '@/core/model/spotting'
import { clampMicros, MICROS_PER_SECOND, type Micros } from '@/core/time/micros'
import type { Player } from '@/media/playback/player'
import type { Session } from '@/store/session'

/** What is only this tab's: which stretch is magnified, which moment is picked up. */
export interface SpotView {
  fromMicros: Micros
  toMicros: Micros
  selected: MomentId | null
}

export interface Spot {
  recording: Recording
  file: Blob
  session: Session<Spotting>
  player: Player
}

export interface SpotContextValue extends Spot {
  view: StoreApi<SpotView>
}

export const SpotContext = createContext<SpotContextValue | null>(null)

const FIRST_STRETCH_MICROS = 60 * MICROS_PER_SECOND

/** No less than this is magnified: a tenth of a second across the screen. */
const MIN_STRETCH_MICROS = MICROS_PER_SECOND / 10

export function newSpotView(durationMicros: Micros): StoreApi<SpotView> {
  return createStore<SpotView>(() => ({
    fromMicros: 0,
    toMicros: Math.min(durationMicros, FIRST_STRETCH_MICROS),
    selected: null,
  }))
}

export function useSpotContext(): SpotContextValue {
  const value = useContext(SpotContext)
  if (!value) throw new Error('outside a Spot screen')
  return value
}

export function useSpotView<T>(pick: (view: SpotView) => T): T {
  return useStore(useSpotContext().view, pick)
}

export function useSpotting(): Spotting {
  return useStore(useSpotContext().session.store, (s) => s.history.value)
}

/** Magnifies the stretch that is `factor` times as long, keeping `anchor` where it is on the screen. */
export function zoomStretch(view: StoreApi<SpotView>, durationMicros: Micros, factor: number, anchor: Micros): void {
  const { fromMicros, toMicros } = view.getState()
  const length = clampMicros(
    (toMicros - fromMicros) * factor,
    Math.min(MIN_STRETCH_MICROS, durationMicros),
    durationMicros,
  )
  const share = (anchor - fromMicros) / (toMicros - fromMicros)
  showStretch(view, durationMicros, anchor - share * length, length)
}

export function panStretch(view: StoreApi<SpotView>, durationMicros: Micros, by: Micros): void {
  const { fromMicros, toMicros } = view.getState()
  showStretch(view, durationMicros, fromMicros + by, toMicros - fromMicros)
}

/** Magnifies `length` from `from` on, held inside the recording. */
export function showStretch(view: StoreApi<SpotView>, durationMicros: Micros, from: Micros, length: Micros): void {
  const fromMicros = Math.round(clampMicros(from, 0, Math.max(0, durationMicros - length)))
  view.setState({ fromMicros, toMicros: Math.round(fromMicros + length) })
}

/** Moves the magnified stretch, if it must, so that a moment is in sight with room around it. */
export function bringIntoSight(
  view: StoreApi<SpotView>,
  durationMicros: Micros,
  inMicros: Micros,
  outMicros: Micros,
): void {
  const { fromMicros, toMicros } = view.getState()
  const margin = (outMicros - inMicros) * 0.5
  if (inMicros >= fromMicros && outMicros <= toMicros) return
  const length = clampMicros(Math.max(toMicros - fromMicros, outMicros - inMicros + 2 * margin), 0, durationMicros)
  showStretch(view, durationMicros, (inMicros + outMicros) / 2 - length / 2, length)
}
