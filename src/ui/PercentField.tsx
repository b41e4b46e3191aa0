'use client'

import { NumberField, type NumberFieldProps } from './NumberField'

/** A share, of 1, that is shown and typed in per cent; `least`, `most` and `step` are in per cent. */
export function PercentField({ value, onSet, ...rest }: Omit<NumberFieldProps, 'unit'>) {
  return (
    <NumberField {...rest} unit="%" value={value * 100} onSet={(percent, gesture) => onSet(percent / 100, gesture)} />
  )
}
