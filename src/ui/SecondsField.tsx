'use client'

import { toMicros, toSeconds, type Micros } from '@/core/time/micros'
import { NumberField, type NumberFieldProps } from './NumberField'

/** A time that is shown and typed in seconds, or as people type times; `least`, `most` and `step` are in seconds. */
export function SecondsField({
  value,
  onSet,
  ...rest
}: Omit<NumberFieldProps, 'unit' | 'value' | 'onSet'> & {
  value: Micros
  onSet: (micros: Micros, gesture: string) => void
}) {
  return (
    <NumberField
      {...rest}
      unit="s"
      value={toSeconds(value)}
      onSet={(seconds, gesture) => onSet(toMicros(seconds), gesture)}
    />
  )
}
