// `npm test`: installs what is missing, then types, lint, unit tests, build, browser tests. Ends at the first that
// fails.
import { ensureBuild, ensureModules, ensurePrograms } from './prepare.mjs'
import { run, runTogether } from './commands.mjs'

await ensureModules()
await ensurePrograms()
run('npx', ['next', 'typegen'])
await runTogether(['npx', ['tsc', '--noEmit']], ['npm', ['run', '--silent', 'lint']])
run('npx', ['vitest', 'run'])
await ensureBuild()
run('npx', ['playwright', 'test'])
