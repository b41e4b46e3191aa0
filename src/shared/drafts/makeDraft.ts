import type { Remote } from 'comlink'
import { DEAD_AIR_DEFAULTS, pausesIn, totalOf } from '@/core/cut/deadAir'
import { onFrame } from '@/core/cut/passages'
import { isSure } from '@/core/detect/regions/proposal'
import { recognise } from '@/core/detect/regions/fingerprint'
import { speechOfAnalysis } from '@/core/detect/speech'
import { NOTHING_LOOKED_AT } from '@/core/findings/findings'
import { titleFrom } from '@/core/drafts/titleFrom'
import type { Outlet } from '@/core/model/outlet'
import type { WholeRecipe } from '@/core/model/recipe'
import type { Recording } from '@/core/model/recording'
import { isGuessedAt, type Setup } from '@/core/model/setup'
import { usedRecordings } from '@/core/model/edit'
import { toDecibels } from '@/core/sound/levels'
import { MICROS_PER_SECOND } from '@/core/time/micros'
import { quietly } from '@/diagnostics/note'
import { applyRecipe, picturesOfRecipe } from '@/edit/recipes'
import { addRecords } from '@/edit/records'
import { applySetup } from '@/edit/regions'
import { strikeAll } from '@/edit/passages'
import { doRemedies, safeRemedies } from '@/edit/remedies'
import { setName } from '@/edit/highlight'
import { setCues, type LooseCue } from '@/edit/words'
import { acceptAllFound } from '@/shared/looks/acceptFound'
import { edgesOf } from '@/shared/looks/edges'
import { lookAt } from '@/shared/looks/looks'
import { readForeign } from '@/media/read/readForeign'
import { usableRecognisers } from '@/media/speech/recogniser'
import type { InspectWorker } from '@/media/workers/inspect.protocol'
import { analysisOf, speechOf } from '@/store/analyses'
import { textBeside } from '@/store/captionTexts'
import type { DraftPick, DraftRun } from '@/store/draftRuns'
import { keepNewEdit, newEditSession, type EditSession } from '@/store/highlights'
import { keptImages } from '@/store/imageFiles'
import { recipeByItself } from '@/store/recipes'
import { keptSetups } from '@/store/setups'
import { formatTime } from '@/ui/format'
import { wording } from './wording'

/** What a draft is made from. */
export interface Making {
  run: DraftRun
  pick: DraftPick
  recording: Recording
  file: Blob
  recipe: WholeRecipe | null
  outlet: Outlet | null
  inspect: Remote<InspectWorker>
  signal: AbortSignal
}

/** Levels are measured in steps of this length. */
const STEP_MICROS = 10_000
/** Taken out unasked only where it is long, and no more than this share in all: a moment may live on its pauses. */
const DEAD_AIR = { ...DEAD_AIR_DEFAULTS, leastMicros: 1.2 * MICROS_PER_SECOND, breathMicros: 250_000 }
const MOST_TAKEN_OUT = 0.35

/**
 * Makes the highlight of a pick: cut, regions and arrangement, pauses, words, name, loudness and what else can be put
 * right. It is kept once it is whole, or not at all when it is stopped. Rejects when it cannot be kept.
 */
export async function makeDraft(making: Making): Promise<void> {
  const { run, pick, recording, signal } = making
  const { inMicros, outMicros, score, reasons } = pick.moment
  const cut = {
    inMicros: onFrame(recording, inMicros),
    outMicros: Math.min(recording.durationMicros, onFrame(recording, outMicros)),
  }
  const wanted = {
    name: wording.nameOf(recording.name, formatTime(inMicros, 0)),
    ...cut,
    origin: { recordingId: recording.id, ...cut, label: '' },
    shapes: [...run.wish.shapes],
    draft: { runId: run.id, score, reasons, isKept: false },
  }
  const session = await newEditSession(recording, wanted, pick.highlightId)
  // Heard by a process of its own while this one looks.
  const heard = findWords(making).catch((error: unknown): Loose => {
    quietly('making a draft')(error)
    return []
  })
  for (const step of [arrange, takeOutDeadAir, writeWords, putRight]) {
    // What one of them cannot do, a person can: the draft is made all the same.
    await step(session, making, heard).catch(quietly('making a draft'))
    if (signal.aborted) return
  }
  await keepNewEdit(session)
}

/** Gives it the regions of its scene, and the arrangement that was asked for or suits it. */
async function arrange(session: EditSession, { recording, file, recipe }: Making): Promise<void> {
  const { setups, highlight } = session.value
  const [passage] = highlight.passages
  const own = setups.find((s) => s.id === passage?.setupId)
  if (!passage || !own) return
  const gesture = crypto.randomUUID()
  let given = recipe
  if (isGuessedAt(own)) {
    const look = await lookAt({ recording, setupId: own.id }, file, session.value, 'by-itself')
    const kept = (await keptSetups()).filter((s) => s.fingerprint)
    const match = look && recognise<Setup>(look.fingerprint, kept)
    if (match?.kind === 'sure') {
      applySetup(session, { setupId: own.id, kept: match.match }, gesture)
      given ??= await recipeByItself(match.match.id)
    }
    const proposals = match?.kind === 'sure' ? [] : (look?.proposals.filter(isSure) ?? [])
    const found = { setupId: own.id, passageId: passage.id, size: recording.video, proposals }
    if (proposals.length > 0 || (match?.kind === 'sure' && !given))
      await acceptAllFound(session, found, { anew: true, byItself: true })
  }
  if (!given) return
  addRecords(session, { imageFiles: await keptImages(picturesOfRecipe(given)) })
  applyRecipe(session, { passageId: passage.id, whole: given }, gesture)
}

async function takeOutDeadAir(session: EditSession, { run, recording, file, inspect }: Making): Promise<void> {
  const [passage] = session.value.highlight.passages
  if (!run.wish.takesOutDeadAir || !passage || !recording.sound) return
  const length = passage.outMicros - passage.inMicros
  const [row = []] = await inspect.levels(
    `draft ${passage.id}`,
    { id: recording.id, file, originMicros: recording.originMicros },
    [{ fromMicros: passage.inMicros, stepMicros: STEP_MICROS, count: Math.ceil(length / STEP_MICROS) }],
  )
  const levels = Float32Array.from(row, ({ rms }) => toDecibels(rms))
  const pauses = pausesIn(passage, levels, STEP_MICROS, DEAD_AIR)
  if (pauses.length === 0 || totalOf(pauses) > MOST_TAKEN_OUT * length) return
  strikeAll(session, {
    label: wording.takeOutDeadAir,
    stretches: pauses.map((strike) => ({ passageId: passage.id, strike })),
  })
}

/** Takes the words in that are known or heard meanwhile, and names the draft after what is said at its peak. */
async function writeWords(
  session: EditSession,
  { run, pick, recording }: Making,
  heard: Promise<Loose>,
): Promise<void> {
  const { inMicros, outMicros } = pick.moment
  const known = () =>
    session.value.highlight.words.cues.filter(
      (c) => c.recordingId === recording.id && c.toMicros > inMicros && c.fromMicros < outMicros,
    )
  if (run.wish.writesWords && known().length === 0) {
    const loose = await heard
    if (loose.length > 0) setCues(session, { recordingId: recording.id, loose, label: wording.writeWords })
  }
  const name = titleFrom(known(), pick.moment)
  if (name) setName(session, { name })
}

type Loose = readonly LooseCue[]

/** The words that lie beside the recording, or what a recogniser of this machine hears in the moment. */
async function findWords(making: Making): Promise<Loose> {
  const { recording } = making
  if (!making.run.wish.writesWords || !recording.sound) return []
  return (await wordsBeside(recording)) ?? (await wordsHeard(making))
}

async function wordsBeside({ id }: Recording) {
  const beside = await textBeside(id)
  if (!beside) return null
  const file = new File([beside.blob], beside.fileName)
  const read = await readForeign(file, (reader) => reader.captions(file))
  return read.ok && read.value.ok ? read.value.cues : null
}

async function wordsHeard({ recording, file, pick, signal }: Making): Promise<Loose> {
  const { inMicros, outMicros } = pick.moment
  const [recogniser] = (await usableRecognisers(recording)).filter((r) => r.id !== 'blanks' && !r.simulated)
  if (!recogniser) return []
  const speech = speechOfAnalysis(await analysisOf(recording)).filter(
    (s) => s.toMicros > inMicros && s.fromMicros < outMicros,
  )
  return speech.length === 0 ? [] : recogniser.recognise(recording, file, speech, { signal, onShare: () => {} })
}

/** Brings it to the loudness of where it is headed, and puts right what can be without leaving anything out. */
async function putRight(session: EditSession, { recording, file, outlet, inspect }: Making): Promise<void> {
  const edit = session.value
  const files = new Map([[recording.id as string, file]])
  const speech = await speechOf(usedRecordings(edit))
  const found = await inspect.findings(
    edit,
    {
      ...NOTHING_LOOKED_AT,
      outlet,
      loudness: await inspect.loudness(edit, files, speech),
      edges: await edgesOf(edit, files),
      speech,
    },
    files,
  )
  const { remedies } = safeRemedies(found ?? [])
  if (remedies.length > 0) doRemedies(session, { remedies, label: wording.putRight })
}
