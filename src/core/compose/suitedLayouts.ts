import { ARRANGEMENT_FAULTS, type ArrangementFault } from '../layout/arrangementChanges'
import { arrangeFor, STARTING_LAYOUTS, type StartingLayout } from '../layout/startingLayouts'
import { layoutOf, setupOf, type Edit } from '../model/edit'
import type { InsetId, PanelId } from '../model/ids'
import type { Arrangement, Layout } from '../model/layout'
import type { Passage } from '../model/passage'
import { showsSomebody, type Role } from '../model/region'
import { answerIn } from './arrangementIn'

/** A starting layout for what a passage's setup has to show, and how well it suits that in a highlight's shapes. */
export interface SuitedLayout {
  starting: StartingLayout
  arrangement: Arrangement
  /** What would still be wrong with it, worst first, in any of the shapes; nothing for one that is offered. */
  faults: readonly ArrangementFault[]
  /** Of all shapes together: less is better. */
  cost: number
}

/** How panels and insets of a layout are named: the `n`th panel of a role. */
export interface LayoutIds {
  panel: (role: Role, n: number) => PanelId
  inset: () => InsetId
}

/** Layouts stand in the order in which they are mostly wanted: this for each place, in each shape. */
const SELDOM = 0.03
/** A layout by the name of more people than there are stands behind those that are meant for so few, in each shape. */
const TOO_FEW = 0.4

/**
 * Every starting layout, those first that suit what a passage shows, and last those that cannot be right in one of
 * the highlight's shapes. The same edit gives the same order.
 */
export function suitedLayouts(edit: Edit, passage: Passage, ids: LayoutIds): SuitedLayout[] {
  return inOrder([...suitEach(edit, passage, ids)])
}

/** {@link suitedLayouts} one by one, in no order, for those who cannot wait for all at once. */
export function* suitEach(edit: Edit, passage: Passage, ids: LayoutIds): Generator<SuitedLayout> {
  const roles = setupOf(edit, passage.setupId).regions.map((r) => r.role)
  const layout = layoutOf(edit, passage.layoutId)
  const people = roles.filter(showsSomebody).length
  for (const [place, starting] of STARTING_LAYOUTS.entries()) {
    const dislike = place * SELDOM + (people < (starting.people ?? 0) ? TOO_FEW : 0)
    const arrangement = arrangeFor(starting, roles, ids.panel, ids.inset)
    const { cost, faults } = suits(edit, passage, { ...layout, adapts: true, arrangement, perShape: {} })
    yield { starting, arrangement, faults, cost: cost + dislike * edit.highlight.shapes.length }
  }
}

/** Those that suit best first, those with a fault last. */
export function inOrder(suited: readonly SuitedLayout[]): SuitedLayout[] {
  return [...suited].sort((a, b) => Number(a.faults.length > 0) - Number(b.faults.length > 0) || a.cost - b.cost)
}

/** How well a layout suits a passage in all of the highlight's shapes. */
function suits(edit: Edit, passage: Passage, layout: Layout): Pick<SuitedLayout, 'cost' | 'faults'> {
  const layouts = edit.layouts.map((l) => (l.id === layout.id ? layout : l))
  const answers = edit.highlight.shapes.map((shape) => answerIn({ ...edit, layouts }, passage, shape))
  const found = new Set(answers.flatMap(({ faults }) => [...faults]))
  return {
    cost: answers.reduce((sum, { cost }) => sum + cost, 0),
    faults: ARRANGEMENT_FAULTS.filter((f) => found.has(f)),
  }
}
