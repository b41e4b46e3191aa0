// `npm run score [name] [-- --json]`: bars that are figures, not pass or fail. One line each: { name, figure, unit,
// bar, met }.
import { parseArgs } from 'node:util'
import { openBrimble } from '../../scripts/headless.mjs'
import { arrangements } from './arrangements.mjs'
import { captions } from './captions.mjs'
import { foundRegions } from './foundRegions.mjs'
import { heardWords } from './heardWords.mjs'
import { hostile } from './hostile.mjs'
import { kills } from './kills.mjs'
import { load } from './load.mjs'
import { plantedMoments } from './plantedMoments.mjs'
import { recognisedSetups } from './recognisedSetups.mjs'
import { sceneChanges } from './sceneChanges.mjs'
import { tightened } from './tightened.mjs'

const scores = {
  'planted-moments': plantedMoments,
  'found-regions': foundRegions,
  'recognised-setups': recognisedSetups,
  'scene-changes': sceneChanges,
  tightened,
  'heard-words': heardWords,
  hostile,
  kills,
  load,
  arrangements,
  captions,
}
/** Those that look at no page. */
const WITHOUT_PAGE = new Set(['arrangements', 'captions'])

const { values, positionals: names } = parseArgs({
  allowPositionals: true,
  options: {
    json: { type: 'boolean', default: false },
    scenes: { type: 'string' },
    sheet: { type: 'string' },
    files: { type: 'string' },
  },
})
const asJson = values.json
for (const name of names)
  if (!(name in scores))
    throw new RangeError(`there is no score called ${name}; there are ${Object.keys(scores).join(', ')}`)

const wanted = names.length > 0 ? names : Object.keys(scores)
const { page, close } = wanted.every((name) => WITHOUT_PAGE.has(name))
  ? { page: null, close: async () => {} }
  : await openBrimble(4890)
try {
  for (const name of wanted) {
    for (const { figure, unit, bar, met, detail } of await scores[name](page, {
      scenes: values.scenes,
      sheet: values.sheet,
      files: values.files,
      asJson,
    })) {
      if (asJson) process.stdout.write(`${JSON.stringify({ name, figure, unit, bar, met })}\n`)
      else
        process.stdout.write(
          `${name}: ${figure} ${unit}, bar ${bar}: ${met ? 'met' : 'missed'}${detail ? ` (${detail})` : ''}\n`,
        )
    }
  }
} finally {
  await close()
}
