// The demo footage, of which it is known what is said, when and by whom: how much of its speech is heard, how well a
// pasted text lies on it, who is named.
import { scripts } from '../../demo/script.mjs'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { root } from '../../scripts/commands.mjs'
import { inDatabase } from '../support/inDatabase.mjs'

/** Highlights of the demo shelf, one for each recording that somebody speaks in. */
const HIGHLIGHTS = {
  'ridge-cup-stream': 'demo-last-gate',
  'open-day-call': 'demo-tea-tent',
  'reading-thermals-webinar': 'demo-core',
}
const STEP = 0.01

const seconds = (text) => text.split(':').reduce((sum, part) => sum * 60 + Number(part), 0)

/** What is said in a recording, as its WebVTT file has it: [{ from, to, speaker, text }], seconds. */
function known(name) {
  const vtt = readFileSync(join(root, 'public', 'demo', `${name}.vtt`), 'utf8')
  return [...vtt.matchAll(/([\d:.]+) --> ([\d:.]+)\n<v (\w+)>(.+)/g)].map(([, from, to, speaker, text]) => ({
    from: seconds(from),
    to: seconds(to),
    speaker,
    text,
  }))
}

/** Lets a demo highlight play all of its recording and opens it on the Bench. */
async function openWhole(page, name) {
  const id = HIGHLIGHTS[name]
  await inDatabase(
    page,
    async (db, done, { id, outMicros }) => {
      const store = db.transaction('highlights', 'readwrite').objectStore('highlights')
      const highlight = await done(store.get(id))
      await done(
        store.put({
          ...highlight,
          passages: highlight.passages.slice(0, 1).map((p) => ({ ...p, inMicros: 0, outMicros })),
        }),
      )
    },
    { id, outMicros: scripts[name].durationSeconds * 1e6 },
  )
  await page.goto(`/highlight/${id}`)
  await page.getByRole('img', { name: 'Result, tall' }).waitFor()
}

/** The stored captions, seconds, once there are any. */
async function captions(page, name, isDone = (cues) => cues.length > 0) {
  for (let tries = 0; tries < 240; tries++) {
    await page.waitForTimeout(500)
    const { words } = await inDatabase(
      page,
      (db, done, id) => done(db.transaction('highlights').objectStore('highlights').get(id)),
      HIGHLIGHTS[name],
    )
    const cues = words.cues.map((c) => ({
      from: c.fromMicros / 1e6,
      to: c.toMicros / 1e6,
      text: c.text,
      speaker: words.speakers.find((s) => s.id === c.speakerId)?.name ?? null,
    }))
    if (isDone(cues)) return cues
  }
  throw new Error(`no captions came of ${name}`)
}

async function choose(page, item) {
  await page.getByRole('button', { name: 'Captions', exact: true }).click()
  await page.getByRole('menuitem', { name: item }).click()
}

const median = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]
const within = (t, stretches) => stretches.some((s) => t >= s.from && t < s.to)

export async function heardWords(page) {
  await page.goto('/')
  await page.getByRole('button', { name: 'Open the demo shelf' }).first().click()
  for (const name of [/^Last gate, no lift/, /^The core leans/, /^The tea tent/])
    await page.getByRole('link', { name }).waitFor({ timeout: 60_000 })
  const heard = { speech: 0, covered: 0, found: 0, wrong: 0, edges: [] }
  const pasted = { all: 0, near: 0 }
  for (const name of Object.keys(HIGHLIGHTS)) {
    const said = known(name)
    await openWhole(page, name)
    await choose(page, 'Blank captions at speech')
    const blanks = await captions(page, name)
    for (let t = STEP / 2; t < scripts[name].durationSeconds; t += STEP) {
      const [is, was] = [within(t, said), within(t, blanks)]
      heard.speech += Number(is)
      heard.covered += Number(is && was)
      heard.found += Number(was)
      heard.wrong += Number(was && !is)
    }
    // Lines that follow each other closely are one stretch of speech: an edge counts where there is one in what is
    // known.
    for (const { from, to } of blanks)
      heard.edges.push(
        Math.min(...said.map((s) => Math.abs(s.from - from))),
        Math.min(...said.map((s) => Math.abs(s.to - to))),
      )
    await choose(page, 'Paste a transcript…')
    await page.getByRole('textbox', { name: 'Text' }).fill(said.map((s) => s.text).join(' '))
    await page.getByRole('button', { name: 'Line up' }).click()
    const lined = await captions(page, name, (cues) => cues.some((c) => c.text !== ''))
    // A line of the script may have been parted into sentences: its first is what counts.
    for (const { from, text } of said) {
      const own = lined.find((c) => c.text !== '' && (text.startsWith(c.text) || c.text.startsWith(text)))
      pasted.all++
      pasted.near += Number(own !== undefined && Math.abs(own.from - from) <= 0.3)
    }
  }
  const call = known('open-day-call')
  await openWhole(page, 'open-day-call')
  await choose(page, /found beside it$/)
  await captions(page, 'open-day-call', (cues) => cues.length === call.length)
  await choose(page, 'Detect speakers by movement')
  await page.getByText(/lines given to who was seen speaking/).waitFor({ timeout: 120_000 })
  await page.waitForTimeout(1500)
  const named = await captions(page, 'open-day-call')
  const right = call.filter(({ speaker, text }) =>
    named.find((c) => c.text === text)?.speaker?.startsWith(speaker),
  ).length
  const share = (part, of) => Math.round((1000 * part) / of) / 10
  const coverage = share(heard.covered, heard.speech)
  const falsely = share(heard.wrong, heard.found)
  const edge = Math.round(1000 * median(heard.edges))
  const near = share(pasted.near, pasted.all)
  return [
    { figure: coverage, unit: '% of speech covered', bar: 'at least 95', met: coverage >= 95 },
    { figure: falsely, unit: '% of what was found is none', bar: 'at most 10', met: falsely <= 10 },
    { figure: edge, unit: 'ms from the edges of speech in the median', bar: 'at most 150', met: edge <= 150 },
    {
      figure: near,
      unit: '% of pasted lines within 300 ms',
      bar: 'at least 90',
      met: near >= 90,
      detail: `${pasted.near} of ${pasted.all}`,
    },
    {
      figure: right,
      unit: `of ${call.length} lines of the call given to who says them`,
      bar: `at least ${call.length - 1}`,
      met: right >= call.length - 1,
    },
  ]
}
