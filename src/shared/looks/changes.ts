import { produce } from 'immer'
import { inOrder, suitEach } from '@/core/compose/suitedLayouts'
import { followPath, type FollowSample } from '@/core/detect/regions/follow'
import { recognise, type Fingerprint } from '@/core/detect/regions/fingerprint'
import { isSure } from '@/core/detect/regions/proposal'
import { areaOf, centreOf, shareOfBoth, type Point, type Rect } from '@/core/geometry/rect'
import { arrangeFor, STARTING_LAYOUTS, type StartingLayout } from '@/core/layout/startingLayouts'
import { withLarge } from '@/core/turns/withLarge'
import { turnsOf, type Turn } from '@/core/turns/turns'
import type { SpeechStretch } from '@/core/sound/ducking'
import { layoutOf, type Edit } from '@/core/model/edit'
import {
  newId,
  type InsetId,
  type LayoutId,
  type PanelId,
  type PassageId,
  type RegionId,
  type SetupId,
} from '@/core/model/ids'
import { newLayout, type Layout } from '@/core/model/layout'
import type { Passage } from '@/core/model/passage'
import type { WholeRecipe } from '@/core/model/recipe'
import { newRecord } from '@/core/model/record'
import type { Recording } from '@/core/model/recording'
import { newRegion, showsSomebody, WHOLE_FRAME, type Region } from '@/core/model/region'
import { copyOf, isGuessedAt, newSetup, type Setup } from '@/core/model/setup'
import type { Micros } from '@/core/time/micros'
import type { Look } from '@/media/workers/regions.protocol'
import { cutAtChanges, cutsAt, playsScene, type PassageCut, type PassagePart, type PlayedScene } from '@/edit/changes'
import { acceptProposals, asRegions } from '@/edit/regions'
import { recipeByItself } from '@/store/recipes'
import { keptSetups } from '@/store/setups'
import { inTurns } from '@/ui/inTurns'
import { seeAlong, type AlongPlan } from './along'
import { lookAt } from './looks'
import { speakersIn } from './speakers'

/** How passages are cut where the picture changes, with the records that the parts refer to. */
export interface ChangePlan {
  cuts: PassageCut[]
  parts: PassagePart[]
  setups: Setup[]
  layouts: Layout[]
  /** Recipes that are used by themselves, with a passage that shows what each is for. */
  recipes: { passageId: PassageId; whole: WholeRecipe }[]
}

/** What is planned for: the passages of `edit` that play a recording with one setup. */
interface Where {
  edit: Edit
  recording: Recording
  setup: Setup
  file: Blob
}

/** `onProgress` is told the share that is done, 0..1. */
interface Going {
  signal: AbortSignal
  onProgress: (share: number) => void
}

/** The edit once its passages are cut, and the parts of them that play the scene. */
function cutUp(
  { edit, recording, setup }: Where,
  changes: readonly Micros[],
): { cuts: PassageCut[]; edit: Edit; played: Passage[] } {
  const scene: PlayedScene = { recordingId: recording.id, setupId: setup.id }
  const cuts = cutsAt(edit, scene, changes, () => newId<PassageId>())
  const cut = produce(edit, (draft) => cutAtChanges.apply(draft, { into: 'scenes', cuts, parts: [] }))
  return { cuts, edit: cut, played: cut.highlight.passages.filter((p) => playsScene(p, scene)) }
}

/** A scene of a recording: what was seen of it, and the passages that show it. */
interface SeenScene {
  look: Look
  fingerprint: Fingerprint
  passages: Passage[]
}

/**
 * Plans a passage for each scene between `changes`, recording times, rising. Scenes that look alike are one; each gets
 * the kept setup that it is for sure, or what is found in it, with the layout that suits it best. Where somebody has
 * placed regions, they stay with the scene that they fit. Null when it was stopped or cannot be looked at.
 */
export async function planScenes(
  where: Where,
  changes: readonly Micros[],
  { signal, onProgress }: Going,
): Promise<ChangePlan | null> {
  const { recording, setup, file } = where
  const { cuts, edit, played } = cutUp(where, changes)
  const kept = (await keptSetups()).filter((s) => s.fingerprint)
  const between = Array.from({ length: changes.length + 1 }, (_, n) =>
    played.filter((p) => changes.filter((c) => c <= p.inMicros).length === n),
  ).filter((passages) => passages.length > 0)
  const scenes: SeenScene[] = []
  for (const [n, passages] of between.entries()) {
    onProgress(n / between.length)
    const look = await lookAtPassages(edit, recording, file, passages)
    if (!look || signal.aborted) return null
    const same = recognise(look.fingerprint, scenes)
    if (same.kind === 'sure') same.match.passages.push(...passages)
    else scenes.push({ look, fingerprint: look.fingerprint, passages: [...passages] })
  }
  const own = isGuessedAt(setup) ? null : sceneOf(setup, recording, scenes)
  const plan: ChangePlan = { cuts, parts: [], setups: [], layouts: [], recipes: [] }
  for (const scene of scenes) {
    const [passage] = scene.passages
    if (!passage) continue
    if (scene === own) {
      plan.parts.push(...partsOf(scene.passages, setup.id, passage.layoutId))
      continue
    }
    const match = recognise<Setup>(scene.fingerprint, kept)
    const whole = match.kind === 'sure' ? match.match : null
    const given = whole ? setupFrom(edit, whole) : foundIn(edit, recording, scene.look)
    const layout = await layoutFor(edit, passage, given)
    if (!layout || signal.aborted) return null
    plan.setups.push(given)
    plan.layouts.push(layout)
    plan.parts.push(...partsOf(scene.passages, given.id, layout.id))
    const recipe = whole && (await recipeByItself(whole.id))
    if (recipe) plan.recipes.push({ passageId: passage.id, whole: recipe })
  }
  return plan
}

const partsOf = (passages: readonly Passage[], setupId: SetupId, layoutId: LayoutId): PassagePart[] =>
  passages.map(({ id }) => ({ passageId: id, setupId, layoutId, cropPaths: [] }))

const ownRecord = (edit: Edit) => ({ ...newRecord(new Date().toISOString()), ownedBy: edit.highlight.id })

const emptySetup = (edit: Edit, name: string): Setup =>
  newSetup({ ...ownRecord(edit), id: newId<SetupId>(), name, regions: [] })

const setupFrom = (edit: Edit, kept: Setup): Setup => ({ ...emptySetup(edit, kept.name), ...copyOf(kept) })

/** An edit with a setup of its own for some of its passages. */
const withSetup = (edit: Edit, setup: Setup, passages: readonly Passage[]): Edit => ({
  ...edit,
  setups: [...edit.setups, setup],
  highlight: {
    ...edit.highlight,
    passages: edit.highlight.passages.map((p) =>
      passages.some(({ id }) => id === p.id) ? { ...p, setupId: setup.id } : p,
    ),
  },
})

function lookAtPassages(
  edit: Edit,
  recording: Recording,
  file: Blob,
  passages: readonly Passage[],
): Promise<Look | null> {
  const alone = emptySetup(edit, recording.name)
  return lookAt({ recording, setupId: alone.id }, file, withSetup(edit, alone, passages), 'by-itself')
}

/** The scene that a setup's regions fit best; of several as good the one that is shown longest. */
function sceneOf({ regions }: Setup, { video }: Recording, scenes: readonly SeenScene[]): SeenScene | null {
  const fit = ({ look }: SeenScene) =>
    regions.reduce((sum, { role, bounds }) => {
      const same = asRegions(look.proposals, video).filter((p) => p.role === role)
      return sum + Math.max(0, ...same.map((p) => shareOfBoth(p.bounds, bounds)))
    }, 0)
  const length = ({ passages }: SeenScene) => passages.reduce((sum, p) => sum + p.outMicros - p.inMicros, 0)
  return scenes.toSorted((a, b) => fit(b) - fit(a) || length(b) - length(a))[0] ?? null
}

/** A setup of what is sure in a scene. */
function foundIn(edit: Edit, { name, video }: Recording, look: Look): Setup {
  const setup = emptySetup(edit, name)
  const proposals = asRegions(look.proposals.filter(isSure), video)
  const found = produce({ ...edit, setups: [setup] }, (draft) =>
    acceptProposals.apply(draft, { setupId: setup.id, proposals, all: true, byItself: true }),
  )
  return { ...(found.setups[0] ?? setup), fingerprint: look.fingerprint }
}

/** The layout that suits a passage best once it has a setup. */
async function layoutFor(edit: Edit, passage: Passage, setup: Setup): Promise<Layout | null> {
  const given = withSetup(edit, setup, [passage])
  const suited = await inTurns(
    suitEach(
      given,
      { ...passage, setupId: setup.id },
      { panel: () => newId<PanelId>(), inset: () => newId<InsetId>() },
    ),
  )
  const [best] = inOrder(suited ?? [])
  return best ? layoutOfOwn(edit, best.starting, best.arrangement) : null
}

const layoutOfOwn = (edit: Edit, { name }: StartingLayout, arrangement: Layout['arrangement']): Layout =>
  newLayout({ ...ownRecord(edit), id: newId<LayoutId>(), name, arrangement, adapts: true })

/**
 * Plans a passage for each turn of those who speak, with whoever speaks large in the arrangement that is there. Told by
 * who moves while somebody is heard. Nobody is given a turn shorter than `leastMicros`. Null when it was stopped; no
 * cuts where there are not two people, nothing is heard, or nobody could be larger.
 */
export async function planTurns(
  { edit, recording, setup, file }: Where,
  speech: readonly SpeechStretch[],
  leastMicros: Micros,
  { signal, onProgress }: Going,
): Promise<ChangePlan | null> {
  const nothing: ChangePlan = { cuts: [], parts: [], setups: [], layouts: [], recipes: [] }
  const people = setup.regions.filter((r) => showsSomebody(r.role))
  const scene: PlayedScene = { recordingId: recording.id, setupId: setup.id }
  const passages = edit.highlight.passages.filter((p) => playsScene(p, scene))
  if (people.length < 2) return nothing
  const turns: Turn[] = []
  for (const [n, passage] of passages.entries()) {
    onProgress(n / passages.length)
    const spoken = await speakersIn(recording, file, passage, people, speech)
    if (signal.aborted) return null
    turns.push(...turnsOf(spoken, passage, leastMicros))
  }
  const starts = turns.map((t) => t.fromMicros).filter((t) => passages.every((p) => p.inMicros !== t))
  const {
    cuts,
    edit: cut,
    played,
  } = cutUp(
    { edit, recording, setup, file },
    [...new Set(starts)].sort((a, b) => a - b),
  )
  const plan: ChangePlan = { ...nothing, cuts }
  const large = new Map<string, Layout | null>()
  for (const { id, inMicros, outMicros, layoutId } of played) {
    const middle = (inMicros + outMicros) / 2
    const turn = turns.find((t) => t.fromMicros <= middle && t.toMicros > middle)
    const person = turn && people[turn.speaker]
    if (!person) continue
    const key = `${layoutId} ${person.id}`
    if (!large.has(key)) large.set(key, largeIn(cut, layoutId, setup, person, people))
    const layout = large.get(key)
    if (layout) plan.parts.push({ passageId: id, setupId: setup.id, layoutId: layout.id, cropPaths: [] })
  }
  plan.layouts.push(...[...large.values()].flatMap((l) => l ?? []))
  return plan.layouts.length > 0 ? plan : nothing
}

/** What a layout was called before somebody was large in it. */
function baseName(name: string, people: readonly Region[]): string {
  const person = people.find((p) => name.endsWith(`, ${p.name}`))
  return person ? name.slice(0, -`, ${person.name}`.length) : name
}

/** A layout of an edit's own in which somebody is large; null where nobody shares their room with them. */
function largeIn(
  edit: Edit,
  layoutId: LayoutId,
  { regions }: Setup,
  person: Region,
  people: readonly Region[],
): Layout | null {
  const layout = layoutOf(edit, layoutId)
  const arrangement = withLarge(layout.arrangement, regions, person.id, people)
  if (!arrangement) return null
  const perShape = Object.entries(layout.perShape).map(
    ([shapeId, own]) => [shapeId, withLarge(own, regions, person.id, people) ?? own] as const,
  )
  return newLayout({
    ...ownRecord(edit),
    id: newId<LayoutId>(),
    name: `${baseName(layout.name, people)}, ${person.name}`,
    arrangement,
    perShape: Object.fromEntries(perShape),
    adapts: layout.adapts === true,
  })
}

/** A shot is looked at this often, and so many times at least. */
const LOOK_EVERY_MICROS = 400_000
const MIN_LOOKS = 4

/** Somebody is what a shot is about from this share of its looks on. */
const ENOUGH_FACES = 0.4

/** How crops that follow move in a shot, fractions of the frame: little, a shot is short. */
const FOLLOWING = { reach: { x: 0.09, y: 0.12 }, mostPerSecond: 0.25 }

/**
 * Plans a passage for each shot between `cuts`, recording times, rising. Where nobody has said what is where, each is
 * framed by itself over the whole frame: at a face where there is one, else where the eye would go. Null when it was
 * stopped or cannot be looked at.
 */
export async function planShots(
  where: Where,
  cutTimes: readonly Micros[],
  { signal, onProgress }: Going,
): Promise<ChangePlan | null> {
  const { recording, setup, file } = where
  const { cuts, edit, played } = cutUp(where, cutTimes)
  const plan: ChangePlan = { cuts, parts: [], setups: [], layouts: [], recipes: [] }
  if (!isGuessedAt(setup)) return plan
  const region = newRegion(newId<RegionId>(), 'game', 'Picture', WHOLE_FRAME)
  const framed = { ...emptySetup(edit, recording.name), regions: [region] }
  const alone = STARTING_LAYOUTS.find((s) => s.id === 'game-alone')
  if (!alone) throw new RangeError('STARTING_LAYOUTS: no game-alone')
  const arrangement = arrangeFor(
    alone,
    ['game'],
    () => newId<PanelId>(),
    () => newId<InsetId>(),
  )
  const layout = layoutOfOwn(edit, alone, arrangement)
  const aims = await aimsIn(recording, file, region.id, played, { signal, onProgress })
  if (!aims) return null
  plan.setups.push(framed)
  plan.layouts.push(layout)
  plan.parts.push(
    ...played.map(({ id }) => {
      const keys = followPath(aims.get(id) ?? [], [], FOLLOWING)
      const cropPaths = keys.length > 0 ? [{ regionId: region.id, keys }] : []
      return { passageId: id, setupId: framed.id, layoutId: layout.id, cropPaths }
    }),
  )
  return plan
}

/** Where to aim in each of some passages, as they play in a recording; null when it was stopped or failed. */
async function aimsIn(
  recording: Recording,
  file: Blob,
  id: RegionId,
  passages: readonly Passage[],
  { signal, onProgress }: Going,
): Promise<ReadonlyMap<PassageId, FollowSample[]> | null> {
  const moments = passages.flatMap((p) => {
    const length = p.outMicros - p.inMicros
    const count = Math.max(MIN_LOOKS, Math.round(length / LOOK_EVERY_MICROS))
    return Array.from({ length: count }, (_, n) => {
      const recordingMicros = Math.round(p.inMicros + (length * (n + 0.5)) / count)
      return { passageId: p.id, outputMicros: recordingMicros, recordingMicros }
    })
  })
  const plan: AlongPlan = {
    key: `shots of ${recording.id}`,
    recording,
    everyMicros: LOOK_EVERY_MICROS,
    moments,
    areas: [{ id, area: WHOLE_FRAME, core: WHOLE_FRAME }],
    closely: true,
  }
  const seen = await seeAlong(plan, file, {
    withPictures: false,
    onStart: (worker) => signal.addEventListener('abort', () => void worker.stop()),
    onSeen: (now) => onProgress(now.moments.filter((m) => m.seen).length / moments.length),
  })
  if (seen.state !== 'done' || signal.aborted) return null
  return new Map(
    passages.map((p) => {
      const own = seen.moments.filter((m) => m.passageId === p.id && m.seen)
      const faces = own.map((m) => largest(m.faces[id] ?? []))
      if (faces.filter(Boolean).length >= own.length * ENOUGH_FACES)
        return [p.id, own.map((m, n) => ({ micros: m.recordingMicros, at: centre(faces[n]) }))]
      // Where nobody is, one place does for all of a shot.
      const at = medianOf(own.flatMap((m) => m.salient[id] ?? []))
      return [p.id, [{ micros: p.inMicros, at }]]
    }),
  )
}

const largest = (faces: readonly Rect[]): Rect | null => faces.toSorted((a, b) => areaOf(b) - areaOf(a))[0] ?? null

function medianOf(points: readonly Point[]): Point | null {
  const middle = (side: 'x' | 'y') => points.map((p) => p[side]).toSorted((a, b) => a - b)[points.length >> 1]
  const [x, y] = [middle('x'), middle('y')]
  return x === undefined || y === undefined ? null : { x, y }
}

const centre = (face: Rect | null | undefined): Point | null => (face ? centreOf(face) : null)
