import type { Outlet, Zone } from '@/core/model/outlet'
import type { Shape } from '@/core/model/shape'

/** The zones that an outlet lays over a shape: those of its own proportion, else none. */
export function zonesOver(outlet: Outlet | null, shape: Shape): readonly Zone[] {
  if (!outlet) return []
  const alike = Math.abs(outlet.shape.width / outlet.shape.height - shape.width / shape.height) < 0.01
  return alike ? outlet.zones : []
}
