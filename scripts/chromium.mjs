// How Chromium is started wherever nobody looks at it: without a word to the outside.
export const CHROMIUM_ARGS = [
  '--no-sandbox',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
]

/** The same as the reference machine has it: without a GPU. */
export const NO_GPU_ARGS = [...CHROMIUM_ARGS, '--disable-gpu']
