// `npm test`: installs what is missing, then types, lint, unit tests, build, browser tests. Ends at the first that fails.
import { ensureBuild, ensureModules, ensurePrograms } from './prepare.mjs'
import { run } from './commands.mjs'

await ensureModules()
await ensurePrograms()
run('npx', ['next', 'typegen'])
run('npx', ['tsc', '--noEmit'])
run('npm', ['run', '--silent', 'lint'])
run('npx', ['vitest', 'run'])
await ensureBuild()
run('npx', ['playwright', 'test'])
