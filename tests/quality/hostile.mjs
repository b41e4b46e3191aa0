// Hostile files and requests, through the real interface and the real server: each is refused in plain words, soon,
// with nothing changed and the page never blocked for long.
import { deflateRawSync } from 'node:zlib'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import http from 'node:http'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { readJob } from '../../unattended/job.mjs'
import { addToShelf } from '../../scripts/headless.mjs'
import { inDatabase } from '../support/inDatabase.mjs'
import { seeded } from './scenes.mjs'

const SEED = Number(process.env.SEED ?? 20261129)
const REFUSED_WITHIN_MS = 2000
const BLOCKED_AT_MOST_MS = 200

/** What an engine or a schema says, and no person. */
const NOT_PLAIN =
  /\bat \w+ \(|Unexpected token|undefined|\[object|NaN|stack|schemaVersion|RangeError|TypeError|SyntaxError|Invalid input|null\b/i

const random = seeded(SEED)
const noise = (bytes) => Buffer.from(Array.from({ length: bytes }, () => random.integer(0, 255)))
const cue = (n, text) =>
  `${String(Math.floor(n / 3600)).padStart(2, '0')}:${String(Math.floor(n / 60) % 60).padStart(2, '0')}:${String(n % 60).padStart(2, '0')}.000 --> ${String(Math.floor((n + 1) / 3600)).padStart(2, '0')}:${String(Math.floor((n + 1) / 60) % 60).padStart(2, '0')}:${String((n + 1) % 60).padStart(2, '0')}.000\n${text}\n`

/**
 * A zip written by hand: `entries` are `{ name, data, says }`; `says`: sizes that its list claims instead of the true
 * ones.
 */
function zip(entries) {
  const locals = []
  const centrals = []
  let offset = 0
  for (const { name, data, says = data.length, stored = false } of entries) {
    const packed = stored ? data : deflateRawSync(data)
    const bytes = Buffer.from(name)
    const crc = crc32(data)
    const head = (signature, length) => {
      const h = Buffer.alloc(length)
      h.writeUInt32LE(signature, 0)
      return h
    }
    const local = head(0x04034b50, 30)
    local.writeUInt16LE(stored ? 0 : 8, 8)
    local.writeUInt32LE(crc, 14)
    local.writeUInt32LE(packed.length, 18)
    local.writeUInt32LE(says, 22)
    local.writeUInt16LE(bytes.length, 26)
    const central = head(0x02014b50, 46)
    central.writeUInt16LE(stored ? 0 : 8, 10)
    central.writeUInt32LE(crc, 16)
    central.writeUInt32LE(packed.length, 20)
    central.writeUInt32LE(says, 24)
    central.writeUInt16LE(bytes.length, 28)
    central.writeUInt32LE(offset, 42)
    locals.push(local, bytes, packed)
    centrals.push(central, bytes)
    offset += 30 + bytes.length + packed.length
  }
  const list = Buffer.concat(centrals)
  const end = Buffer.alloc(22)
  end.writeUInt32LE(0x06054b50, 0)
  end.writeUInt16LE(Math.min(65_534, entries.length), 8)
  end.writeUInt16LE(Math.min(65_534, entries.length), 10)
  end.writeUInt32LE(list.length, 12)
  end.writeUInt32LE(offset, 16)
  return Buffer.concat([...locals, list, end])
}

const TABLE = Uint32Array.from({ length: 256 }, (_, n) => {
  let c = n
  for (let k = 0; k < 8; k++) c = c & 1 ? 0xedb88320 ^ (c >>> 1) : c >>> 1
  return c >>> 0
})
function crc32(data) {
  let c = 0xffffffff
  for (const byte of data) c = TABLE[(c ^ byte) & 255] ^ (c >>> 8)
  return (c ^ 0xffffffff) >>> 0
}

const deep = (n) => `${'['.repeat(n)}${']'.repeat(n)}`
const bundle = (more) => JSON.stringify({ brimble: 'bundle', version: 1, edits: [], ...more })
const text = (s) => Buffer.from(s)

function captionFiles() {
  return {
    'empty.vtt': '',
    'blank.srt': '\n\n\n',
    'only-head.vtt': 'WEBVTT\n',
    'noise.vtt': noise(200_000),
    'noise.srt': noise(50_000),
    'nul.vtt': Buffer.alloc(100_000),
    'too-many.vtt': `WEBVTT\n\n${Array.from({ length: 20_001 }, (_, n) => cue(n, 'a')).join('\n')}`,
    'far-too-many.srt': '0 --> 1\n'.repeat(900_000),
    'too-large.vtt': `WEBVTT\n\n${'x'.repeat(12_100_000)}`,
    'half-tags.vtt': `WEBVTT\n\n00:01.000 --> 00:02.000\n${'<'.repeat(5_000_000)}`,
    'nested.vtt': `WEBVTT\n\n00:01.000 --> 00:02.000\n${'<b>'.repeat(3_000_000)}`,
    'entities.vtt': `WEBVTT\n\n00:01.000 --> 00:01.000\n${'&amp'.repeat(1_000_000)}`,
    'backwards.vtt': `WEBVTT\n\n${'00:05.000 --> 00:04.000\nno\n\n'.repeat(1000)}`,
    'no-times.srt': `1\n00:00:xx,000 --> soon\nhello\n`.repeat(500),
    'arrows.vtt': `WEBVTT\n\n${'-->'.repeat(400_000)}`,
    'long-line.srt': `1\n${'1'.repeat(3_000_000)} --> 2\n`,
    'html.vtt': '<html><script>alert(1)</script></html>',
    'utf16.vtt': Buffer.from('WEBVTT\n\nnothing', 'utf16le'),
    'huge-number.vtt': `WEBVTT\n\n${'9'.repeat(400)}:00:00.000 --> 00:00:01.000\nx`,
    'style.vtt': `WEBVTT\n\nSTYLE\n${'::cue{color:red}'.repeat(100_000)}`,
    'picture.srt': Buffer.concat([Buffer.from([0x89, 0x50, 0x4e, 0x47]), noise(5000)]),
    'zip.vtt': zip([{ name: 'a', data: text('a') }]),
    'spaces.srt': ' '.repeat(6_000_000),
    'dashes.srt': `${'1:00:00,000 -'.repeat(300_000)}`,
  }
}

function markFiles() {
  const bad = 'soon,later,what\n'
  return {
    'empty.csv': '',
    'large.csv': 'x'.repeat(20_100_000),
    'large-text.vtt': `WEBVTT\n${'x'.repeat(5_100_000)}`,
    'words.csv': bad.repeat(3000),
    'quotes.csv': `"${'a,'.repeat(500_000)}`,
    'commas.csv': ','.repeat(2_000_000),
    'noise.csv': noise(100_000),
    'late.csv': 'time,label\n99999,late\n'.repeat(10),
    'backwards.csv': 'time,end\n3,1\n'.repeat(10),
    'nothing.vtt': 'WEBVTT\n\n',
    'tags.vtt': `WEBVTT\n\n${'<'.repeat(4_000_000)}`,
    'many.vtt': `WEBVTT\n\n${'1 --> 2\n\n'.repeat(400_000)}`,
    'no-head.vtt': '00:01.000 --> 00:02.000\nx',
    'bad-times.vtt': `WEBVTT\n\n${'00:99.000 --> 00:03.000\nx\n\n'.repeat(200)}`,
    'noise.edl': noise(100_000),
    'blanks.edl': `TITLE: X\n${`001 AX V C ${' '.repeat(100_000)}x\n`.repeat(20)}`,
    'bad-events.edl': `TITLE: X\n${'001  AX       V     C        rubbish\n'.repeat(500)}`,
    'backwards.edl': 'TITLE: X\n001  AX       V     C        00:00:05:00 00:00:02:00 01:00:00:00 01:00:10:00\n',
    'comments.edl': `TITLE: X\n${'* LOC: nowhere GREEN x\n'.repeat(50_000)}`,
    'binary.edl': Buffer.alloc(1_000_000, 255),
  }
}

function workFiles() {
  const edit = { highlight: {}, setups: [], layouts: [], recordings: [] }
  const valid = bundle({ edits: [edit] })
  return {
    'empty.brimble.json': '',
    'broken.brimble.json': '{"brimble":',
    'deep.brimble.json': `{"brimble":"bundle","version":1,"edits":${deep(100_000)}}`,
    'deep-edit.brimble.json': bundle({ edits: [JSON.parse(`{"highlight":${deep(90)}}`)] }),
    'newer.brimble.json': bundle({ version: 99 }),
    'newer-record.brimble.json': bundle({ edits: [{ ...edit, highlight: { schemaVersion: 99 } }] }),
    'not-ours.brimble.json': '{"name":"x"}',
    'nothing.brimble.json': 'null',
    'list.brimble.json': '[]',
    'no-edits.brimble.json': bundle({}),
    'many-edits.brimble.json': bundle({ edits: Array(500).fill(edit) }),
    'bad-edit.brimble.json': valid,
    'proto.brimble.json': '{"__proto__":{"brimble":"bundle"},"version":1,"edits":[{}]}',
    'long-string.brimble.json': `{"brimble":"${'x'.repeat(5_000_000)}"}`,
    'numbers.brimble.json': bundle({ edits: [{ ...edit, highlight: { schemaVersion: 1e400 } }] }),
    'noise.brimble.json': noise(100_000),
    'empty.zip': '',
    'noise.zip': noise(200_000),
    'cut.zip': zip([{ name: 'bundle.json', data: text(valid) }]).subarray(0, 60),
    'no-list.zip': zip([{ name: 'media/1.mp4', data: noise(100) }]),
    'many.zip': zip(
      Array.from({ length: 60_000 }, (_, n) => ({ name: `media/${n}.mp4`, data: Buffer.alloc(0), stored: true })),
    ),
    'escape.zip': zip([
      { name: 'bundle.json', data: text(valid) },
      { name: '../../etc/passwd', data: text('x') },
    ]),
    'absolute.zip': zip([
      { name: 'bundle.json', data: text(valid) },
      { name: '/etc/passwd', data: text('x') },
    ]),
    'bomb.zip': zip([{ name: 'bundle.json', data: Buffer.alloc(60_000_000, 32) }]),
    'bomb-media.zip': zip([
      { name: 'bundle.json', data: text(valid) },
      { name: 'media/1.mp4', data: Buffer.alloc(30_000_000) },
    ]),
    'lying.zip': zip([{ name: 'bundle.json', data: text(valid), says: 900_000_000 }]),
    'deep-list.zip': zip([{ name: 'bundle.json', data: text(`{"edits":${deep(100_000)}}`) }]),
    'newer.zip': zip([{ name: 'bundle.json', data: text(bundle({ version: 99 })) }]),
    'missing.zip': zip([
      {
        name: 'bundle.json',
        data: text(bundle({ edits: [edit], carried: [{ id: 'r', entry: 'media/1.mp4', sizeBytes: 5 }] })),
      },
    ]),
    'bad-entry.zip': zip([
      {
        name: 'bundle.json',
        data: text(bundle({ edits: [edit], carried: [{ id: 'r', entry: '../x.mp4', sizeBytes: 5 }] })),
      },
    ]),
    'empty.otio': '',
    'broken.otio': '{"OTIO_SCHEMA":',
    'deep.otio': `{"OTIO_SCHEMA":"Timeline.1","tracks":${deep(100_000)}}`,
    'not-timeline.otio': '{"OTIO_SCHEMA":"Clip.1"}',
    'no-clips.otio': '{"OTIO_SCHEMA":"Timeline.1","tracks":{"OTIO_SCHEMA":"Stack.1","children":[]}}',
    'negative.otio':
      '{"OTIO_SCHEMA":"Timeline.1","tracks":{"OTIO_SCHEMA":"Stack.1","children":[{"OTIO_SCHEMA":"Track.1","children":[{"OTIO_SCHEMA":"Clip.1","source_range":{"OTIO_SCHEMA":"TimeRange.1","start_time":{"OTIO_SCHEMA":"RationalTime.1","rate":-1,"value":1},"duration":{"OTIO_SCHEMA":"RationalTime.1","rate":0,"value":1}}}]}]}}',
    'unknown-files.otio':
      '{"OTIO_SCHEMA":"Timeline.1","tracks":{"OTIO_SCHEMA":"Stack.1","children":[{"OTIO_SCHEMA":"Track.1","kind":"Video","children":[{"OTIO_SCHEMA":"Clip.1","name":"nowhere.mp4","source_range":{"OTIO_SCHEMA":"TimeRange.1","start_time":{"OTIO_SCHEMA":"RationalTime.1","rate":25,"value":1},"duration":{"OTIO_SCHEMA":"RationalTime.1","rate":25,"value":25}}}]}]}}',
    'wide.otio': `{"OTIO_SCHEMA":"Timeline.1","tracks":{"OTIO_SCHEMA":"Stack.1","children":[${Array(300).fill('{"OTIO_SCHEMA":"Track.1","children":[]}').join()}]}}`,
    'noise.otio': noise(100_000),
    'empty.mp4': '',
    'noise.mp4': noise(100_000),
    'text.mkv': 'not a video',
    'box.mp4': Buffer.concat([Buffer.from([255, 255, 255, 255]), text('ftypisom'), noise(1000)]),
    'page.mp4': '<html>',
  }
}

function backupFiles() {
  const list = (more) =>
    text(JSON.stringify({ brimble: 'backup', version: 1, madeAt: '2026-11-29T10:00:00Z', records: {}, ...more }))
  return {
    'backup-broken.zip': zip([{ name: 'backup.json', data: text('{') }]),
    'backup-deep.zip': zip([{ name: 'backup.json', data: text(`{"records":${deep(100_000)}}`) }]),
    'backup-newer.zip': zip([{ name: 'backup.json', data: list({ version: 99 }) }]),
    'backup-newer-record.zip': zip([
      { name: 'backup.json', data: list({ records: { highlight: [{ schemaVersion: 99 }] } }) },
    ]),
    'backup-not.zip': zip([{ name: 'backup.json', data: text('{"brimble":"bundle"}') }]),
    'backup-missing.zip': zip([
      {
        name: 'backup.json',
        data: list({
          carried: [{ kind: 'file', id: 'r', fileName: 'a', type: '', entry: 'files/1.mp4', sizeBytes: 5 }],
        }),
      },
    ]),
    'backup-size.zip': zip([
      {
        name: 'backup.json',
        data: list({
          carried: [{ kind: 'file', id: 'r', fileName: 'a', type: '', entry: 'files/1.mp4', sizeBytes: 5 }],
        }),
      },
      { name: 'files/1.mp4', data: noise(10), stored: true },
    ]),
    'backup-bomb.zip': zip([{ name: 'backup.json', data: Buffer.alloc(80_000_000, 32) }]),
  }
}

function rackFiles() {
  return {
    'rack-empty.json': '',
    'rack-broken.json': '{',
    'rack-deep.json': deep(200_000),
    'rack-list.json': '[]',
    'rack-nothing.json': '{"brimble":"rack","version":1}',
    'rack-newer.json': '{"brimble":"rack","version":7,"setups":[{}]}',
    'rack-bundle.json': bundle({}),
    'rack-noise.json': noise(50_000),
    'rack-many.json': JSON.stringify({ brimble: 'rack', version: 1, setups: Array(5000).fill({}) }),
    'rack-string.json': `{"brimble":"rack","version":1,"setups":"${'x'.repeat(1_000_000)}"}`,
    'rack-bytes.json': JSON.stringify({
      brimble: 'rack',
      version: 1,
      setups: [],
      bytes: { a: { type: 'text/html', base64: 'AAAA' } },
    }),
    'rack-preset.json': JSON.stringify({ brimble: 'preset', version: 1, output: {} }),
  }
}

function png(width, height) {
  const chunk = (name, data) => {
    const head = Buffer.alloc(8)
    head.writeUInt32BE(data.length, 0)
    head.write(name, 4)
    const crc = Buffer.alloc(4)
    crc.writeUInt32BE(crc32(Buffer.concat([text(name), data])), 0)
    return Buffer.concat([head, data, crc])
  }
  const header = Buffer.alloc(13)
  header.writeUInt32BE(width, 0)
  header.writeUInt32BE(height, 4)
  header.set([8, 2, 0, 0, 0], 8)
  return Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10]),
    chunk('IHDR', header),
    chunk('IDAT', noise(200)),
    chunk('IEND', Buffer.alloc(0)),
  ])
}

function pictureFiles() {
  const gif = (w, h) => Buffer.concat([text('GIF89a'), Buffer.from([w & 255, w >> 8, h & 255, h >> 8, 0, 0, 0])])
  return {
    'empty.png': '',
    'noise.png': noise(50_000),
    'bomb.png': png(30_000, 30_000),
    'line.png': png(2_000_000, 1),
    'cut.png': png(100, 100).subarray(0, 40),
    'bomb.gif': gif(65_535, 65_535),
    'cut.gif': gif(10, 10),
    'noise.jpg': Buffer.concat([Buffer.from([0xff, 0xd8, 0xff, 0xe0]), noise(5000)]),
    'words.webp': text('RIFFxxxxWEBPVP8 '),
    'script.svg': '<script>fetch("http://evil.example")</script>',
    'not.svg': 'hello',
    'large.png': Buffer.alloc(61_000_000),
  }
}

function fontFiles() {
  return {
    'empty.ttf': '',
    'noise.ttf': noise(50_000),
    'noise.woff2': Buffer.concat([text('wOF2'), noise(5000)]),
    'text.otf': 'font',
    'zero.woff': Buffer.alloc(100_000),
    'large.ttf': Buffer.alloc(41_000_000),
  }
}

/** Everything that is stored, as one text. */
const fingerprint = (page) =>
  inDatabase(page, async (db, done) => {
    const names = [...db.objectStoreNames].filter(
      (name) => !['pictures', 'analyses', 'settings', 'undo'].includes(name),
    )
    const transaction = db.transaction(names)
    const all = await Promise.all(names.map((name) => done(transaction.objectStore(name).getAll())))
    return JSON.stringify(names.map((name, n) => [name, all[n].map((r) => [r.id ?? r.owner ?? r.name, r.updatedAt])]))
  })

/** Puts a file where it is asked for and waits for what is said of it. */
async function tryFile(page, give, path, saying) {
  await page.evaluate(() => {
    window.longest = 0
    window.watching ??= new PerformanceObserver((list) =>
      list.getEntries().forEach((e) => (window.longest = Math.max(window.longest, e.duration))),
    )
    window.watching.observe({ type: 'longtask' })
  })
  const before = await fingerprint(page)
  await page.evaluate(() => (window.longest = 0))
  const began = Date.now()
  await give(path)
  const words = await saying()
  const took = Date.now() - began
  await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => setTimeout(done))))
  const blocked = await page.evaluate(() => window.longest)
  return { took, blocked, words, changed: (await fingerprint(page)) !== before }
}

/** The text of the first of these that is there, taken away again; null when nothing is said for ten seconds. */
async function said(page, locator) {
  const words = await locator
    .first()
    .innerText({ timeout: 10_000 })
    .catch(() => null)
  return words
}

const GROUPS = {
  captions: { files: captionFiles, open: openBench, give: giveCaptions, said: snackbarOrDialog },
  marks: { files: markFiles, open: openSpot, give: giveMarks, said: snackbarOrDialog },
  work: { files: workFiles, open: openShelf, give: giveWork, said: shelfAlert },
  backups: { files: backupFiles, open: openShelf, give: giveWork, said: backupAlert },
  rack: {
    files: rackFiles,
    open: (page) => page.goto('/rack'),
    give: (page) => (path) => page.getByLabel('Files of a rack').setInputFiles(path),
    said: snackbarOrDialog,
  },
  pictures: {
    files: pictureFiles,
    open: openMarks,
    give: (page) => (path) => page.getByLabel('Picture to put on top').setInputFiles(path),
    said: snackbarOrDialog,
  },
  fonts: {
    files: fontFiles,
    open: openFonts,
    give: (page) => (path) => page.getByLabel('A font file').setInputFiles(path),
    said: snackbarOrDialog,
  },
}

async function openShelf(page) {
  await page.goto('/')
}

async function openBench(page) {
  await page.goto('/')
  await page
    .getByRole('link', { name: /open on the Bench/ })
    .first()
    .click()
  await page.getByRole('img', { name: 'Result, tall' }).waitFor()
}

async function openMarks(page) {
  await openBench(page)
  await page.getByLabel('Picture to put on top').waitFor({ state: 'attached' })
}

async function openFonts(page) {
  await openBench(page)
  await page.getByRole('button', { name: 'Words', exact: true }).click()
  await page.getByRole('button', { name: 'More about the look of captions' }).click()
  await page.getByLabel('A font file').waitFor({ state: 'attached' })
}

async function openSpot(page) {
  await page.goto('/')
  await page
    .getByRole('link', { name: /^Find moments in/ })
    .first()
    .click()
  await page.getByRole('button', { name: 'Marks', exact: true }).waitFor()
}

const chosen = (page, menu, item) => async (path) => {
  await page.getByRole('button', { name: menu, exact: true }).click()
  const chooser = page.waitForEvent('filechooser')
  await page.getByRole('menuitem', { name: item }).click()
  await (await chooser).setFiles(path)
}
function giveCaptions(page) {
  return chosen(page, 'Captions', /^Read WebVTT or SubRip/)
}
function giveMarks(page) {
  return chosen(page, 'Marks', /^Read CSV/)
}
function giveWork(page) {
  return async (path) => {
    const chooser = page.waitForEvent('filechooser')
    await page.getByRole('button', { name: 'Add recordings' }).first().click()
    await (await chooser).setFiles(path)
  }
}

function snackbarOrDialog(page) {
  return async () => {
    const dialog = page.getByRole('dialog').filter({ hasText: 'read from' })
    const words = await said(page, page.locator('.notistack-Snackbar').or(dialog))
    if (await dialog.isVisible()) await page.keyboard.press('Escape')
    for (const snackbar of await page.locator('.notistack-Snackbar').all())
      await snackbar.evaluate((element) => element.remove()).catch(() => {})
    return words
  }
}

function shelfAlert(page) {
  return async () => {
    const alert = page.getByRole('alert').filter({ hasText: '“' })
    const words = await said(page, alert)
    for (const close of await page.getByRole('alert').getByRole('button', { name: 'Close' }).all())
      await close.click().catch(() => {})
    return words
  }
}

function backupAlert(page) {
  return async () => {
    const words = await said(page, page.getByRole('alert').filter({ hasText: '“' }))
    if (await page.getByRole('dialog').isVisible()) await page.keyboard.press('Escape')
    await page.getByRole('dialog').waitFor({ state: 'hidden' })
    for (const close of await page.getByRole('alert').getByRole('button', { name: 'Close' }).all())
      await close.click().catch(() => {})
    return words
  }
}

/** Requests to the application's own server that it has to refuse: `[what, method, path, headers, body]`. */
function requests(origin) {
  const host = new URL(origin).host
  const port = new URL(origin).port
  const own = { origin, 'sec-fetch-site': 'same-origin' }
  const routes = [
    ['GET', '/api/pick-up'],
    ['POST', '/api/pick-up'],
    ['DELETE', '/api/pick-up'],
    ['PUT', '/api/pick-up/files?name=a.mp4'],
    ['GET', '/api/render-nodes'],
    ['POST', '/api/render-nodes'],
    ['DELETE', '/api/render-nodes?ids=a'],
    ['PUT', '/api/render-nodes/bundle'],
    ['GET', '/api/stand-in/clips'],
    ['GET', '/api/stand-in/clips/file'],
    ['PUT', '/api/stand-in/clips/fault'],
    ['GET', '/api/stand-in/outlet/posts'],
    ['POST', '/api/stand-in/outlet/posts'],
    ['PUT', '/api/stand-in/outlet/posts'],
  ]
  const foreign = [
    [
      'rebound',
      { host: `evil.example:${port}`, origin: `http://evil.example:${port}`, 'sec-fetch-site': 'same-origin' },
    ],
    ['null origin', { ...own, origin: 'null' }],
  ]
  return [
    ...routes.flatMap(([method, path]) =>
      foreign.map(([who, headers]) => [`${who} ${method} ${path}`, method, path, headers, null]),
    ),
    ['page under another name', 'GET', '/', { host: `evil.example:${port}` }, null],
    ['something sent to a page', 'POST', '/', { host }, 'x'],
    ['a body of spaces', 'PUT', '/api/stand-in/clips/fault', own, ' '.repeat(3_000_000)],
    ['a body that is too long', 'PUT', '/api/stand-in/outlet/posts', own, `{"fault":"${'x'.repeat(100_000)}"}`],
    ['a body that is no JSON', 'PUT', '/api/stand-in/outlet/posts', own, '{'],
    ['a body that nests', 'PUT', '/api/stand-in/outlet/posts', own, deep(400)],
    ['no key', 'POST', '/api/stand-in/outlet/posts', own, 'x'],
    ['a file for a pick-up that is not open', 'PUT', '/api/pick-up/files?name=a.mp4', own, 'x'],
  ]
}

/** A browser, and `fetch`, set Host and Origin themselves. */
function ask(origin, method, path, headers, body) {
  const began = Date.now()
  const { hostname, port } = new URL(origin)
  return new Promise((resolve) => {
    const request = http.request(
      {
        hostname,
        port,
        method,
        path,
        headers: { ...headers, ...(body !== null && { 'content-length': Buffer.byteLength(body) }) },
      },
      (response) => {
        response.resume()
        resolve({ status: response.statusCode ?? 0, took: Date.now() - began })
      },
    )
    // What is refused before it is read may be cut off while it is being sent.
    request.on('error', () => resolve({ status: 0, took: Date.now() - began }))
    request.end(body ?? undefined)
  })
}

const JOBS = [
  {},
  null,
  [],
  'x',
  { id: '../x', highlight: 'h', name: 'n', frames: 1, at: 0, file: {}, text: '' },
  { id: 'a', highlight: 'h', name: '', frames: 1, at: 0, file: {}, text: '' },
  { id: 'a', highlight: 'h', name: 'n', frames: -1, at: 0, file: {}, text: '' },
  { id: 'a', highlight: 'h', name: 'n', frames: 1, at: 0, file: {}, bundle: { fileName: '../../x.zip', sizeBytes: 1 } },
  { id: 'a', highlight: 'h', name: 'n', frames: 1, at: 1e9, file: {}, text: '' },
  { id: 'a', highlight: 'h', name: 'n', frames: 1, at: 0, file: 'x', text: '' },
]

export async function hostile(page) {
  const dir = mkdtempSync(join(tmpdir(), 'brimble-hostile-'))
  await addToShelf(page, 'public/demo/field-dawn.mp4')
  await page.getByRole('button', { name: 'Cut a highlight from field-dawn' }).click()
  await page.getByRole('img', { name: 'Result, tall' }).waitFor()
  const bad = []
  let tried = 0
  let [slowest, longest] = [0, 0]
  const judge = (name, { took, blocked = 0, words = 'refused', changed = false }) => {
    tried++
    slowest = Math.max(slowest, took)
    longest = Math.max(longest, blocked)
    const faults = [
      took > REFUSED_WITHIN_MS && `${took} ms`,
      blocked > BLOCKED_AT_MOST_MS && `blocked ${Math.round(blocked)} ms`,
      words === null && 'nothing said',
      words !== null && NOT_PLAIN.test(words) && `“${words.slice(0, 120)}”`,
      changed && 'something changed',
    ].filter(Boolean)
    if (faults.length > 0) bad.push(`${name}: ${faults.join(', ')}`)
  }
  for (const [group, { files, open, give, said: saying }] of Object.entries(GROUPS)) {
    await open(page)
    await page.waitForTimeout(1500)
    for (const [name, content] of Object.entries(files())) {
      const path = join(dir, name)
      writeFileSync(path, content)
      judge(`${group} ${name}`, await tryFile(page, give(page), path, saying(page)))
    }
  }
  const origin = new URL(page.url()).origin
  for (const [what, ...request] of requests(origin)) {
    const { status, took } = await ask(origin, ...request)
    judge(what, { took, words: status >= 400 && status < 500 ? `refused ${status}` : null })
  }
  JOBS.forEach((job, n) => judge(`job ${n}`, { took: 0, words: readJob(job) === null ? 'refused' : null }))
  rmSync(dir, { recursive: true, force: true })
  return [
    { figure: tried, unit: 'hostile files and requests tried', bar: 150, met: tried >= 150 },
    {
      figure: bad.length,
      unit: 'not refused in plain words within 2 s with nothing changed and the page not blocked over 200 ms',
      bar: 0,
      met: bad.length === 0,
      detail: `slowest ${slowest} ms, longest block ${Math.round(longest)} ms, seed ${SEED}${bad.length > 0 ? `; ${bad.join('; ')}` : ''}`,
    },
  ]
}
