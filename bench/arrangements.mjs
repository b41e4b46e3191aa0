// How long it takes to arrange a highlight: every starting layout over the scenes of the score, in the four standard
// shapes, each from nothing known. No page takes part.
import { arrangementScenes } from '../tests/quality/arrangementScenes.mjs'
import { editsOf, SHAPES } from '../tests/quality/arrangements.mjs'
import { core } from '../tests/quality/core.mjs'

/** Every so many scenes. */
const EVERY = 4

export async function arrangements({ memory }) {
  const { answerIn } = await core('compose/arrangementIn')
  const shapes = SHAPES.filter((s) => s.id !== 'odd')
  const all = await editsOf(arrangementScenes().filter((_, i) => i % EVERY === 0))
  const times = []
  for (const round of [0, 1])
    for (const { edits } of all) {
      // What was answered before is remembered by record.
      const edit = structuredClone(edits.at(-1))
      const [passage] = edit.highlight.passages
      const started = performance.now()
      for (const shape of shapes) answerIn(edit, passage, shape)
      // The first round is for the compiler to warm up.
      if (round === 1) times.push(performance.now() - started)
    }
  times.sort((a, b) => a - b)
  const [median, most] = [0.5, 0.9].map((part) => times[Math.floor(part * (times.length - 1))])
  process.stdout.write(
    `  ${times.length} highlights in four shapes: ${median.toFixed(1)} ms (median), ${most.toFixed(1)} ms in nine of ten, ${times.at(-1).toFixed(0)} ms at worst\n`,
  )
  const seconds = times.reduce((sum, t) => sum + t, 0) / 1000
  return [
    {
      name: 'arrangements',
      seconds,
      referenceSeconds: seconds,
      medianMs: median,
      nineOfTenMs: most,
      worstMs: times.at(-1),
      ...(await memory.peak()),
    },
  ]
}
