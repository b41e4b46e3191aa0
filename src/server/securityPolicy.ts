/**
 * What pages and workers may load: this application's own files and what it makes itself, nothing from anywhere else.
 */
const COMMON = [
  "default-src 'self'",
  "connect-src 'self' blob: data:",
  "img-src 'self' blob: data:",
  "media-src 'self' blob:",
  "font-src 'self' blob:",
  "worker-src 'self' blob:",
  "object-src 'none'",
  "base-uri 'none'",
  "form-action 'self'",
  "frame-ancestors 'none'",
]

/** For scripts and workers. `wasm-unsafe-eval` is what WebAssembly needs; it does not allow JavaScript's eval. */
export const STATIC_POLICY = [...COMMON, "script-src 'self' blob: 'wasm-unsafe-eval'"].join('; ')

/**
 * For pages: only scripts that carry this response's nonce run. Emotion writes its styles into the page, hence inline
 * ones.
 */
export function pagePolicy(nonce: string, development: boolean): string {
  const scripts = [
    "script-src 'self'",
    `'nonce-${nonce}'`,
    "'strict-dynamic'",
    "'wasm-unsafe-eval'",
    ...(development ? ["'unsafe-eval'"] : []),
  ].join(' ')
  return [...COMMON, scripts, "style-src 'self' 'unsafe-inline'"].join('; ')
}
