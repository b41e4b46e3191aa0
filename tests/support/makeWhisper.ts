import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import protobuf from 'protobufjs'

/** As much of ONNX's own schema (onnx/onnx.proto) as two graphs of three nodes need. */
const { root } = protobuf.parse(
  `
  syntax = "proto3";
  message AttributeProto { string name = 1; float f = 2; int64 i = 3; TensorProto t = 5; repeated int64 ints = 8; int32 type = 20; }
  message NodeProto { repeated string input = 1; repeated string output = 2; string name = 3; string op_type = 4; repeated AttributeProto attribute = 5; }
  message TensorProto { repeated int64 dims = 1; int32 data_type = 2; string name = 8; bytes raw_data = 9; }
  message Dimension { int64 dim_value = 1; string dim_param = 2; }
  message TensorShapeProto { repeated Dimension dim = 1; }
  message TensorType { int32 elem_type = 1; TensorShapeProto shape = 2; }
  message TypeProto { TensorType tensor_type = 1; }
  message ValueInfoProto { string name = 1; TypeProto type = 2; }
  message GraphProto { repeated NodeProto node = 1; string name = 2; repeated TensorProto initializer = 5; repeated ValueInfoProto input = 11; repeated ValueInfoProto output = 12; }
  message OperatorSetIdProto { string domain = 1; int64 version = 2; }
  message ModelProto { int64 ir_version = 1; GraphProto graph = 7; repeated OperatorSetIdProto opset_import = 8; }
`,
  { keepCase: true },
)

const [FLOAT, INT64, BOOL] = [1, 7, 9] as const

type Dim = number | string
const value = (name: string, elem_type: number, dims: readonly Dim[]) => ({
  name,
  type: {
    tensor_type: {
      elem_type,
      shape: { dim: dims.map((d) => (typeof d === 'number' ? { dim_value: d } : { dim_param: d })) },
    },
  },
})
const floats = (name: string, dims: readonly number[], data: Float32Array) => ({
  name,
  dims,
  data_type: FLOAT,
  raw_data: new Uint8Array(data.buffer),
})
const ints = (name: string, data: readonly number[]) => ({
  name,
  dims: [data.length],
  data_type: INT64,
  raw_data: new Uint8Array(BigInt64Array.from(data, BigInt).buffer),
})
const int = (name: string, i: number) => ({ name, i, type: 2 })

function model(graph: object): Uint8Array {
  const type = root.lookupType('ModelProto')
  return type.encode(type.fromObject({ ir_version: 8, opset_import: [{ domain: '', version: 13 }], graph })).finish()
}

const WIDTH = 4
const SECONDS = 30

/** Special tokens as Whisper's tokenizers order them, and after them one for each fiftieth of a second. */
const SPECIAL = [
  '<|endoftext|>',
  '<|startoftranscript|>',
  '<|en|>',
  '<|de|>',
  '<|translate|>',
  '<|transcribe|>',
  '<|startoflm|>',
  '<|startofprev|>',
  '<|nospeech|>',
  '<|notimestamps|>',
]

/**
 * A folder with a Whisper model that has learnt one thing by heart: whatever it hears, it writes `sentences`, each
 * with its seconds. Its weights are a table of which token follows which, so a token may occur once only. It says
 * that it times words and cannot, as many do. Returns the folder's path.
 */
export function makeWhisper(sentences: readonly { text: string; from: number; to: number }[]): string {
  const pieces = sentences.flatMap(({ text }) => text.split(' ').map((word) => `Ġ${word}`))
  if (new Set(pieces).size !== pieces.length) throw new RangeError('a word occurs twice')
  const letters = [...new Set([...pieces.join('')])]
  const vocabulary = [...new Set([...letters, ...pieces])]
  const times = Array.from({ length: SECONDS * 50 + 1 }, (_, i) => `<|${(i / 50).toFixed(2)}|>`)
  const all = [...vocabulary, ...SPECIAL, ...times]
  const id = (token: string) => all.indexOf(token)
  const script = [
    '<|transcribe|>',
    ...sentences.flatMap(({ text, from, to }) => [
      `<|${from.toFixed(2)}|>`,
      ...text.split(' ').map((w) => `Ġ${w}`),
      `<|${to.toFixed(2)}|>`,
    ]),
    '<|endoftext|>',
  ]
  const follows = new Float32Array(all.length * all.length)
  for (const [i, token] of script.entries())
    if (i > 0) follows[id(script[i - 1] as string) * all.length + id(token)] = 30

  const encoder = model({
    name: 'encoder',
    initializer: [
      ints('starts', [0, 0]),
      ints('ends', [WIDTH, SECONDS * 100]),
      ints('axes', [1, 2]),
      ints('steps', [1, 2]),
    ],
    node: [
      { op_type: 'Slice', input: ['input_features', 'starts', 'ends', 'axes', 'steps'], output: ['few'] },
      {
        op_type: 'Transpose',
        input: ['few'],
        output: ['last_hidden_state'],
        attribute: [{ name: 'perm', ints: [0, 2, 1], type: 7 }],
      },
    ],
    input: [value('input_features', FLOAT, ['batch', 80, SECONDS * 100])],
    output: [value('last_hidden_state', FLOAT, ['batch', SECONDS * 50, WIDTH])],
  })
  const past = ['decoder.key', 'decoder.value', 'encoder.key', 'encoder.value']
  const cache = (name: string) => value(name, FLOAT, ['batch', 1, 'past', WIDTH])
  const decoder = model({
    name: 'decoder',
    initializer: [floats('follows', [all.length, all.length], follows)],
    node: [
      { op_type: 'Gather', input: ['follows', 'input_ids'], output: ['logits'], attribute: [int('axis', 0)] },
      ...past.map((p) => ({ op_type: 'Identity', input: [`past_key_values.0.${p}`], output: [`present.0.${p}`] })),
    ],
    input: [
      value('input_ids', INT64, ['batch', 'length']),
      value('encoder_hidden_states', FLOAT, ['batch', SECONDS * 50, WIDTH]),
      ...past.map((p) => cache(`past_key_values.0.${p}`)),
      value('use_cache_branch', BOOL, [1]),
    ],
    output: [value('logits', FLOAT, ['batch', 'length', all.length]), ...past.map((p) => cache(`present.0.${p}`))],
  })

  const special = {
    bos_token_id: id('<|endoftext|>'),
    eos_token_id: id('<|endoftext|>'),
    pad_token_id: id('<|endoftext|>'),
    decoder_start_token_id: id('<|startoftranscript|>'),
  }
  const added = [...SPECIAL, ...times].map((content) => ({
    id: id(content),
    content,
    single_word: false,
    lstrip: false,
    rstrip: false,
    normalized: false,
    special: SPECIAL.includes(content),
  }))
  const folder = join(mkdtempSync(join(tmpdir(), 'brimble-whisper-')), 'little-whisper')
  mkdirSync(join(folder, 'onnx'), { recursive: true })
  const write = (name: string, content: object) => writeFileSync(join(folder, name), JSON.stringify(content))
  write('config.json', {
    model_type: 'whisper',
    architectures: ['WhisperForConditionalGeneration'],
    is_encoder_decoder: true,
    vocab_size: all.length,
    d_model: WIDTH,
    encoder_layers: 1,
    decoder_layers: 1,
    encoder_attention_heads: 1,
    decoder_attention_heads: 1,
    max_source_positions: SECONDS * 50,
    max_target_positions: 448,
    num_mel_bins: 80,
    ...special,
  })
  write('generation_config.json', {
    is_multilingual: true,
    lang_to_id: { '<|en|>': id('<|en|>'), '<|de|>': id('<|de|>') },
    task_to_id: { transcribe: id('<|transcribe|>'), translate: id('<|translate|>') },
    no_timestamps_token_id: id('<|notimestamps|>'),
    max_initial_timestamp_index: SECONDS * 50,
    max_length: 448,
    alignment_heads: [[0, 0]],
    ...special,
  })
  write('preprocessor_config.json', {
    feature_extractor_type: 'WhisperFeatureExtractor',
    processor_class: 'WhisperProcessor',
    feature_size: 80,
    sampling_rate: 16000,
    hop_length: 160,
    n_fft: 400,
    chunk_length: SECONDS,
    n_samples: SECONDS * 16000,
    nb_max_frames: SECONDS * 100,
    padding_value: 0,
    padding_side: 'right',
    return_attention_mask: false,
  })
  write('tokenizer_config.json', {
    tokenizer_class: 'WhisperTokenizer',
    processor_class: 'WhisperProcessor',
    bos_token: '<|endoftext|>',
    eos_token: '<|endoftext|>',
    unk_token: '<|endoftext|>',
    pad_token: '<|endoftext|>',
    clean_up_tokenization_spaces: false,
    model_max_length: 1024,
  })
  write('tokenizer.json', {
    version: '1.0',
    added_tokens: added,
    normalizer: null,
    pre_tokenizer: { type: 'ByteLevel', add_prefix_space: false, trim_offsets: true, use_regex: true },
    post_processor: null,
    decoder: { type: 'ByteLevel', add_prefix_space: true, trim_offsets: true, use_regex: true },
    model: {
      type: 'BPE',
      dropout: null,
      unk_token: null,
      continuing_subword_prefix: '',
      end_of_word_suffix: '',
      fuse_unk: false,
      vocab: Object.fromEntries(vocabulary.map((t, i) => [t, i])),
      merges: [],
    },
  })
  writeFileSync(join(folder, 'onnx', 'encoder_model.onnx'), encoder)
  writeFileSync(join(folder, 'onnx', 'decoder_model_merged.onnx'), decoder)
  return folder
}
