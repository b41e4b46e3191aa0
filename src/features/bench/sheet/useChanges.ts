import { useSnackbar } from 'notistack'
import { useEffect, useMemo, useRef, useState } from 'react'
import { produce } from 'immer'
import type { Edit } from '@/core/model/edit'
import { newId, type PassageId } from '@/core/model/ids'
import { setupsIn } from '@/core/model/passage'
import type { Micros } from '@/core/time/micros'
import { cutAtChanges, cutsAt, type CutInto } from '@/edit/changes'
import { applyRecipe, picturesOfRecipe } from '@/edit/recipes'
import { addRecords } from '@/edit/records'
import { planScenes, planShots, planTurns, type ChangePlan } from '@/shared/looks/changes'
import { copyHighlight } from '@/store/highlights'
import { keptRecipes } from '@/store/recipes'
import { useOffer } from '@/ui/useOffer'
import { useBenchContext, useHighlight, useCalmParts } from '../benchContext'
import { bringImages } from '../bringImages'
import { useSeenAlong } from '../frame/useAlong'
import { useSpeechHere } from '../words/useSpeechHere'
import { wording } from './wording'

/** How often whoever is large may change: the shortest turn. */
export type Pace = 'calm' | 'usual' | 'lively'
const SHORTEST_TURN: Record<Pace, Micros> = { calm: 5_000_000, usual: 2_500_000, lively: 2_000_000 }

/** What goes on: how much of it is done, 0..1. */
interface Going {
  into: CutInto
  share: number
}

/** Where the picture changes at once in what is worked on, and what can be done about it. */
export interface Changes {
  /** Cuts within passages, recording time; null while they are not known. */
  cuts: Micros[] | null
  sceneChanges: Micros[]
  going: Going | null
  cut: (into: 'scenes' | 'shots') => Promise<void>
  /** Makes a passage of each turn of those who speak, with whoever speaks large. */
  follow: (pace: Pace) => Promise<void>
  /** Makes a highlight of each shot; this one stays as it is. */
  cutApart: () => Promise<void>
  stop: () => void
}

/** Cuts that were seen along the highlight, and cutting it there. */
export function useChanges(): Changes {
  const bench = useBenchContext()
  const { session, files } = bench
  const { passages } = useHighlight()
  const { recording, setup } = useCalmParts()
  const along = useSeenAlong()
  const listen = useSpeechHere()
  const offer = useOffer()
  const { enqueueSnackbar } = useSnackbar()
  const [going, setGoing] = useState<Going | null>(null)
  const abort = useRef<AbortController | null>(null)
  useEffect(() => () => abort.current?.abort(), [])
  const done = along?.state === 'done' ? along : null
  const inside = useMemo(() => {
    if (!done) return null
    const scene = { recordingId: recording.id, setupId: setup.id }
    const edit: Edit = { ...session.value, highlight: { ...session.value.highlight, passages } }
    const within = (changes: readonly Micros[]) =>
      changes.filter((c) => cutsAt(edit, scene, [c], () => newId<PassageId>()).length > 0)
    return { cuts: within(done.cuts), sceneChanges: within(done.sceneChanges) }
  }, [done, passages, recording.id, setup.id, session])

  const plan = async (into: CutInto, pace: Pace = 'usual'): Promise<{ edit: Edit; plan: ChangePlan } | null> => {
    const file = files.get(recording.id)
    if (!file || (!inside && into !== 'turns')) return null
    const edit = session.value
    abort.current?.abort()
    const stopped = new AbortController()
    abort.current = stopped
    setGoing({ into, share: 0 })
    try {
      const where = { edit, recording, setup, file }
      const going = { signal: stopped.signal, onProgress: (share: number) => setGoing({ into, share }) }
      const planned = {
        scenes: () => planScenes(where, inside?.sceneChanges ?? [], going),
        shots: () => planShots(where, inside?.cuts ?? [], going),
        turns: async () => planTurns(where, await listen(), SHORTEST_TURN[pace], going),
      }
      const made = await planned[into]()
      if (stopped.signal.aborted) return null
      if (!made) enqueueSnackbar(wording.couldNotBeCut, { variant: 'error' })
      else if (session.value.highlight !== edit.highlight) enqueueSnackbar(wording.changedMeanwhile)
      else return { edit: session.value, plan: made }
      return null
    } finally {
      if (abort.current === stopped) setGoing(null)
    }
  }

  const cut = async (into: 'scenes' | 'shots', isWanted: (plan: ChangePlan) => boolean = () => true) => {
    const planned = await plan(into)
    if (planned && isWanted(planned.plan)) await take(into, planned.plan)
  }
  const follow = async (pace: Pace) => {
    const planned = await plan('turns', pace)
    if (!planned) return
    const { cuts, layouts } = planned.plan
    if (cuts.length > 0) await take('turns', planned.plan)
    else enqueueSnackbar(layouts.length > 0 ? wording.isCutAlready : wording.nobodyTakesTurns)
  }
  const take = async (into: CutInto, { cuts, parts, setups, layouts, recipes }: ChangePlan) => {
    for (const { whole } of recipes) await bringImages(bench, picturesOfRecipe(whole))
    const gesture = crypto.randomUUID()
    addRecords(session, { setups, layouts })
    if (!cutAtChanges(session, { into, cuts, parts }, gesture)) return
    for (const recipe of recipes) applyRecipe(session, recipe, gesture)
    offer({
      words: wording.isCutInto(cuts.length + 1, into),
      button: wording.undo,
      act: () => session.undo(),
      staysMs: STAYS_MS,
    })
  }

  const cutApart = async () => {
    const planned = await plan('shots')
    if (!planned) return
    const { edit, plan: made } = planned
    const apart = produce(
      { ...edit, setups: [...edit.setups, ...made.setups], layouts: [...edit.layouts, ...made.layouts] },
      (draft) => cutAtChanges.apply(draft, { into: 'shots', ...made }),
    )
    const shots = apart.highlight.passages
    for (const [n, passage] of shots.entries()) {
      const alone: Edit = {
        ...apart,
        highlight: { ...apart.highlight, passages: [passage] },
        setups: apart.setups.filter((s) => setupsIn(passage).includes(s.id)),
        layouts: apart.layouts.filter((l) => l.id === passage.layoutId),
      }
      await copyHighlight(alone, wording.shotOf(apart.highlight.name, n + 1))
    }
    enqueueSnackbar(wording.highlightsMade(shots.length))
  }

  // Where a recipe says so, a new highlight is cut without being asked, if a scene of the recipe's is in it.
  const latest = useRef({ cut })
  latest.current = { cut }
  const tried = useRef(false)
  const several = (inside?.sceneChanges.length ?? 0) > 0
  useEffect(() => {
    if (!several || tried.current) return
    tried.current = true
    const isNew = session.store.getState().history.steps.length <= 1
    void keptRecipes().then((recipes) => {
      if (isNew && recipes.some((r) => r.recipe.byItself && r.recipe.cutsScenes))
        return latest.current.cut('scenes', (made) => made.recipes.some((r) => r.whole.recipe.cutsScenes))
    })
  }, [several, session])

  return {
    cuts: inside?.cuts ?? null,
    sceneChanges: inside?.sceneChanges ?? [],
    going,
    cut,
    follow,
    cutApart,
    stop: () => {
      abort.current?.abort()
      setGoing(null)
    },
  }
}

/** Long enough to look at what came of it. */
const STAYS_MS = 20_000
