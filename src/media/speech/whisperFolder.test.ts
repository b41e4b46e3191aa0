import { expect, test } from 'vitest'
import { readWhisperFolder } from './whisperFolder'

const json = (value: unknown) => new Blob([JSON.stringify(value)])
const settings: [string, Blob][] = [
  ['config.json', json({ model_type: 'whisper' })],
  [
    'generation_config.json',
    json({ is_multilingual: true, lang_to_id: { '<|en|>': 1, '<|nl|>': 2 }, alignment_heads: [[0, 0]] }),
  ],
  ['preprocessor_config.json', json({})],
  ['tokenizer.json', json({})],
  ['tokenizer_config.json', json({})],
]
const weights = (...paths: string[]) => paths.map((p): [string, Blob] => [p, new Blob(['x'])])

test('the quickest form of each weight is taken, from the folder it lies in', async () => {
  const read = await readWhisperFolder(
    'little',
    new Map([
      ...settings,
      ...weights(
        'encoder_model.onnx',
        'onnx/decoder_model_merged.onnx',
        'onnx/decoder_model_merged_q4.onnx',
        'onnx/decoder_model_merged_q4.onnx_data',
        'onnx/decoder_model_merged_fp16.onnx',
      ),
      ['README.md', new Blob(['x'])],
    ]),
  )
  if (!read.ok) throw new Error(read.reason)
  expect(read.folder).toMatchObject({
    forms: { encoder: 'fp32', decoder: 'q4' },
    languages: ['en', 'nl'],
    timesWords: true,
  })
  expect([...read.folder.files.keys()].filter((p) => !p.endsWith('.json')).sort()).toEqual([
    'onnx/decoder_model_merged_q4.onnx',
    'onnx/decoder_model_merged_q4.onnx_data',
    'onnx/encoder_model.onnx',
  ])
})

test('a folder that is something else says what it lacks or is', async () => {
  expect(await readWhisperFolder('pictures', new Map(weights('a.jpg')))).toMatchObject({
    ok: false,
    reason: 'missing',
    missing: expect.arrayContaining(['config.json', 'onnx/encoder_model.onnx']),
  })
  const both = weights('onnx/encoder_model.onnx', 'onnx/decoder_model_merged.onnx')
  expect(
    await readWhisperFolder('other', new Map([...settings, ...both, ['config.json', json({ model_type: 'bert' })]])),
  ).toEqual({ ok: false, reason: 'another-kind' })
  expect(await readWhisperFolder('broken', new Map([...settings, ...both, ['config.json', new Blob(['{'])]]))).toEqual({
    ok: false,
    reason: 'unreadable',
    path: 'config.json',
  })
})

test('a model of one language asks for none', async () => {
  const read = await readWhisperFolder(
    'english',
    new Map([
      ...settings,
      ...weights('onnx/encoder_model_quantized.onnx', 'onnx/decoder_model_merged_quantized.onnx'),
      ['generation_config.json', json({ is_multilingual: false })],
    ]),
  )
  expect(read).toMatchObject({
    ok: true,
    folder: { languages: [], timesWords: false, forms: { encoder: 'q8', decoder: 'q8' } },
  })
})
