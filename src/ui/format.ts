import type { FrameRate } from '@/core/time/frameRate'
import { framesPerSecond } from '@/core/time/frameRate'
import { MICROS_PER_SECOND, type Micros } from '@/core/time/micros'

/** `0:24.3`, `1:12:30.2`; `decimals` digits of a second. */
export function formatTime(t: Micros, decimals = 1): string {
  const unit = MICROS_PER_SECOND / 10 ** decimals
  const total = Math.floor(Math.max(0, t) / unit + 1e-9)
  const perSecond = 10 ** decimals
  const seconds = Math.floor(total / perSecond)
  const fraction = decimals > 0 ? `.${String(total % perSecond).padStart(decimals, '0')}` : ''
  const s = String(seconds % 60).padStart(2, '0')
  const m = Math.floor(seconds / 60) % 60
  const h = Math.floor(seconds / 3600)
  return h > 0 ? `${h}:${String(m).padStart(2, '0')}:${s}${fraction}` : `${m}:${s}${fraction}`
}

/** A length in words a person would say: `40 s`, `12 min`, `3 h 04 min`. */
export function formatLength(t: Micros): string {
  const seconds = Math.round(t / MICROS_PER_SECOND)
  if (seconds < 90) return `${seconds} s`
  const minutes = Math.round(seconds / 60)
  if (minutes < 60) return `${minutes} min`
  return `${Math.floor(minutes / 60)} h ${String(minutes % 60).padStart(2, '0')} min`
}

export function formatBytes(bytes: number): string {
  if (bytes < 100_000) return `${Math.max(1, Math.round(bytes / 1000))} kB`
  if (bytes < 10_000_000) return `${(bytes / 1e6).toFixed(1)} MB`
  if (bytes < 1e9) return `${Math.round(bytes / 1e6)} MB`
  return `${(bytes / 1e9).toFixed(1)} GB`
}

/** `60 fps`, `29.97 fps`. */
export function formatRate(rate: FrameRate): string {
  const fps = framesPerSecond(rate)
  return `${Number.isInteger(fps) ? fps : fps.toFixed(2)} fps`
}

/** `1080 × 1920`. */
export function formatSize({ width, height }: { width: number; height: number }): string {
  return `${width} × ${height}`
}

/** `1080p60`, the trade's shorthand for a recording's size and rate. */
export function formatVideo({ height, frameRate }: { height: number; frameRate: FrameRate }): string {
  const fps = framesPerSecond(frameRate)
  return `${height}p${Number.isInteger(fps) ? fps : fps.toFixed(2)}`
}

/** `Tuesday 24 November`; the day that an ISO time falls on here. */
export function formatDay(iso: string): string {
  return new Date(iso).toLocaleDateString('en-GB', { weekday: 'long', day: 'numeric', month: 'long' })
}

/** The day as `2026-11-24`, to group by. */
export function dayKey(iso: string): string {
  const d = new Date(iso)
  return `${d.getFullYear()}-${String(d.getMonth() + 1).padStart(2, '0')}-${String(d.getDate()).padStart(2, '0')}`
}

/** How long something takes, as a person says it: 40 s, 3 min, 2 h 10 min. */
export function formatDuration(seconds: number): string {
  if (seconds < 90) return `${Math.max(1, Math.round(seconds))} s`
  const minutes = Math.round(seconds / 60)
  return minutes < 90 ? `${minutes} min` : `${Math.floor(minutes / 60)} h ${minutes % 60} min`
}
