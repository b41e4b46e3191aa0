import { STANDARD_SHAPES, type Shape } from '@/core/model/shape'

/** What a shape is called: its name, or “own” for a size that somebody typed. */
export function shapeName({ id }: Shape): string {
  return STANDARD_SHAPES.some((s) => s.id === id) ? id : 'own size'
}
