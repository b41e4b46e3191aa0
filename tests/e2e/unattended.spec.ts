import { expect, test, type Page } from '@playwright/test'
import { readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { chosenBackEnd } from '@/core/output/backEnd'
import { inDatabase } from '../support/inDatabase.mjs'
import { MADE, made } from '../support/makeRecordings'
import { moveCut, renderAndSave, setNumber, SMALL, toBench } from '../support/brimble'
import { framePrints, runToEnd } from '../support/commands'
import { start, tempDir } from '../support/processes.mjs'

const RENDER = 'unattended/render.mjs'

/** Saves what “Export” gives out under this name. */
async function handOn(page: Page, item: string | RegExp): Promise<string> {
  await page.getByRole('button', { name: 'Export' }).click()
  const download = page.waitForEvent('download')
  await page.getByRole('menuitem', { name: item }).click()
  const saved = await download
  const path = join(tempDir('edit'), saved.suggestedFilename())
  await saved.saveAs(path)
  return path
}

/** Which back end was measured to be the quicker one before the first render. */
async function backEndUsed(page: Page): Promise<string> {
  const { value } = await inDatabase(
    page,
    async (db, done) =>
      (await done(db.transaction('settings').objectStore('settings').get('outbox'))) as {
        value: { measured: { canvasMs: number; planesMs: number } }
      },
  )
  const { canvasMs, planesMs } = value.measured
  return chosenBackEnd('measured', { canvasMs, planesMs, gpuMs: null })
}

test('a file made without a person is, frame by frame and in its sound, the one that the interface makes', async ({
  page,
}) => {
  await toBench(page, made('pattern.mp4'), 'pattern')
  await moveCut(page, 'Out point', -10)
  await setNumber(page, 1, 'Speed', '125')
  const edit = await handOn(page, /^Edit alone/)
  const bundle = await handOn(page, /^Bundle with the footage used/)
  // VP9 at a held quality gives the same bytes for the same pictures; the browser's H.264 does not, from one time to
  // the next.
  const { path } = await renderAndSave(page, { coding: 'VP9 in MP4', size: SMALL })
  const out = tempDir('rendered')
  writeFileSync(join(dirname(edit), 'preset.json'), '{"coding":"mp4-vp9","size":"720"}')
  const { code, lines, said } = runToEnd(RENDER, [
    edit,
    bundle,
    '--media',
    MADE,
    '--out',
    out,
    '--json',
    '--preset',
    join(dirname(edit), 'preset.json'),
    '--back-end',
    await backEndUsed(page),
  ])
  expect(code, said).toBe(0)
  expect(lines.filter((l) => l.event === 'progress').length).toBeGreaterThan(0)
  expect(lines.at(-1)).toEqual({ event: 'ended', finished: 2, failed: 0 })
  // Two of one name: the second does not take the first one's place.
  expect(readdirSync(out).sort()).toEqual(['pattern, cut 1 tall (2).mp4', 'pattern, cut 1 tall.mp4'])
  const own = framePrints(path)
  expect(own.split('\n').length).toBeGreaterThan(80)
  for (const name of readdirSync(out)) expect(framePrints(join(out, name))).toBe(own)
})

test('files made in one go are, frame by frame and in their sound, what each is when it is made by itself', async ({
  page,
}) => {
  await toBench(page, made('pattern.mp4'), 'pattern')
  await moveCut(page, 'Out point', -10)
  for (const shape of ['portrait', 'square']) await page.getByRole('button', { name: shape, exact: true }).click()
  const edit = await handOn(page, /^Edit alone/)
  const preset = join(dirname(edit), 'preset.json')
  writeFileSync(preset, '{"coding":"mp4-vp9","size":"720"}')
  const prints = (...shapes: string[]) => {
    const out = tempDir('in-one-go')
    const { code, said } = runToEnd(RENDER, [
      edit,
      '--media',
      MADE,
      '--out',
      out,
      '--json',
      '--preset',
      preset,
      '--shape',
      shapes.join(),
    ])
    expect(code, said).toBe(0)
    return Object.fromEntries(shapes.map((shape) => [shape, framePrints(join(out, `pattern, cut 1 ${shape}.mp4`))]))
  }
  const together = prints('tall', 'portrait', 'square')
  // Sound is coded once for all three, and each encoder has waited for its turns.
  const soundOf = (print = '') => print.split('\n').filter((line) => line.startsWith('1,'))
  expect(soundOf(together.tall).length).toBeGreaterThan(50)
  for (const shape of ['tall', 'portrait', 'square']) expect(soundOf(together[shape])).toEqual(soundOf(together.tall))
  expect(prints('square').square).toBe(together.square)
})

test('what cannot be made is told with its reason and its exit code; an interrupted call leaves nothing', async ({
  page,
}) => {
  await toBench(page, made('pattern.mp4'), 'pattern')
  const edit = await handOn(page, /^Edit alone/)
  const out = tempDir('rendered')
  const nowhere = runToEnd(RENDER, [edit, '--media', dirname(edit), '--out', out, '--json'])
  expect(nowhere.code).toBe(1)
  expect(nowhere.lines).toContainEqual(
    expect.objectContaining({ event: 'failed', shape: 'tall', reason: 'source-missing', fileName: 'pattern.mp4' }),
  )
  const notes = join(out, 'notes.brimble.json')
  writeFileSync(notes, '{"brimble":"bundle","version":99}')
  const mixed = runToEnd(RENDER, [notes, edit, '--media', MADE, '--out', out, '--json', '--shape', 'square,oval'])
  expect(mixed.code).toBe(1)
  expect(mixed.lines.filter((l) => l.event === 'failed')).toEqual([
    { event: 'failed', from: 'notes.brimble.json', reason: 'newer-version', detail: 'version 99' },
    { event: 'failed', from: expect.stringMatching(/brimble\.json$/), reason: 'unknown-shape', detail: 'oval' },
  ])
  expect(runToEnd(RENDER, [edit]).code).toBe(2)
  expect(runToEnd(RENDER, [edit, '--media', join(out, 'not-there'), '--out', out]).code).toBe(2)
  writeFileSync(join(out, 'preset.json'), '{"quality":"splendid"}')
  const preset = runToEnd(RENDER, [edit, '--media', MADE, '--out', out, '--preset', join(out, 'preset.json')])
  expect([preset.code, preset.said]).toEqual([2, expect.stringContaining('quality')])
  const running = start(RENDER, [edit, '--media', MADE, '--out', out, '--json'])
  await running.until('progress')
  running.child.kill('SIGINT')
  expect(await running.ended).toBe(130)
  expect(readdirSync(out).sort()).toEqual(['notes.brimble.json', 'preset.json'])
})

/** The processes below one, by what Linux tells of each. */
function descendants(pid: number): { pid: number; command: string }[] {
  const all = readdirSync('/proc').filter((name) => /^\d+$/.test(name))
  const read = (name: string, file: string) => {
    try {
      return readFileSync(`/proc/${name}/${file}`, 'utf8')
    } catch {
      return ''
    }
  }
  const children = all
    .filter((name) => / \w (\d+) /.exec(read(name, 'stat').replace(/^.*\)/, ''))?.[1] === String(pid))
    .map(Number)
  return children.flatMap((child) => [{ pid: child, command: read(String(child), 'cmdline') }, ...descendants(child)])
}

test('of a browser that breaks down, what it had at work has failed with the reason, and the rest is made by another', async ({
  page,
}) => {
  await toBench(page, made('pattern.mp4'), 'pattern')
  await moveCut(page, 'Out point', -6)
  const first = await handOn(page, /^Edit alone/)
  await page.getByLabel('Name of the highlight').fill('Second heat')
  await page.keyboard.press('Enter')
  const second = await handOn(page, /^Edit alone/)
  const out = tempDir('rendered')
  const running = start(RENDER, [first, second, '--media', MADE, '--out', out, '--json', '--shape', 'tall'])
  await running.until('progress')
  const renderers = descendants(running.child.pid ?? 0).filter((p) => p.command.includes('--type=renderer'))
  expect(renderers.length).toBeGreaterThan(0)
  for (const { pid } of renderers) process.kill(pid, 'SIGKILL')
  expect(await running.ended).toBe(1)
  const events = (name: string) => running.lines.filter((l) => l.event === name)
  expect(events('failed')).toEqual([
    expect.objectContaining({
      highlight: 'pattern, cut 1',
      reason: 'broken',
      detail: expect.stringContaining('broke down'),
    }),
  ])
  expect(events('finished')).toEqual([expect.objectContaining({ highlight: 'Second heat' })])
  expect(events('ended')).toEqual([expect.objectContaining({ finished: 1, failed: 1 })])
  expect(readdirSync(out)).toEqual(['Second heat tall.mp4'])
})
