// `npm run demo`: installs if needed, builds if needed, starts, prints the address, which opens with the demo shelf.
import { spawn } from 'node:child_process'
import { freePort, openInDesktopBrowser, root } from './commands.mjs'
import { ensureBuild, ensureModules } from './prepare.mjs'

await ensureModules()
await ensureBuild()
const port = await freePort(Number(process.env.PORT ?? 4680))
const address = `http://localhost:${port}/?demo`
const server = spawn(
  process.execPath,
  ['node_modules/next/dist/bin/next', 'start', '-p', String(port), '-H', 'localhost'],
  { cwd: root, stdio: ['ignore', 'pipe', 'inherit'], env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1' } },
)
let ready = false
server.stdout.on('data', (text) => {
  if (ready || !String(text).includes('Ready')) return
  ready = true
  process.stdout.write(`\nBrimble is running. Open  ${address}\nStop it with Ctrl+C.\n\n`)
  openInDesktopBrowser(address)
})
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal))
server.on('exit', (code) => process.exit(code ?? 0))
