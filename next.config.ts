import type { NextConfig } from 'next'
import { STATIC_POLICY } from './src/server/securityPolicy'

/** Cross-origin isolation: precise memory measuring and shared memory for workers; nothing foreign is ever embedded. */
const isolation = [
  { key: 'Cross-Origin-Opener-Policy', value: 'same-origin' },
  { key: 'Cross-Origin-Embedder-Policy', value: 'require-corp' },
  { key: 'Cross-Origin-Resource-Policy', value: 'same-origin' },
  { key: 'X-Content-Type-Options', value: 'nosniff' },
  { key: 'Referrer-Policy', value: 'no-referrer' },
]

const config: NextConfig = {
  agentRules: false,
  experimental: { agentUpgrade: false },
  poweredByHeader: false,
  // `npm test` checks types; whoever only wants to use the application need not wait for it.
  typescript: { ignoreBuildErrors: true },
  reactStrictMode: true,
  // They load parts of themselves by name.
  serverExternalPackages: ['bullmq', 'ioredis'],
  devIndicators: false,
  // The recogniser's library asks for the runtime with a GPU's code in it; the one that is shipped runs on the
  // processor.
  // The decoder of words asks for a polyfill that works in pages alone.
  turbopack: {
    resolveAlias: {
      'onnxruntime-web/webgpu': 'onnxruntime-web/wasm',
      'blob-polyfill': './src/media/speech/platformBlob.ts',
    },
  },
  headers: async () => [
    { source: '/:path*', headers: isolation },
    // Workers take their policy from their own script's response; pages get theirs, with a nonce, in src/proxy.ts.
    { source: '/_next/static/:path*', headers: [{ key: 'Content-Security-Policy', value: STATIC_POLICY }] },
    { source: '/demo/:path*', headers: [{ key: 'Content-Security-Policy', value: STATIC_POLICY }] },
  ],
}

export default config
