/** The long forms of kills, generated requests and random steps. `SEED` repeats a run. */
import { ensureBuilt, ensureInstalled, run } from './prepare.mjs'

ensureInstalled()
ensureBuilt()
run('npx', ['playwright', 'test', 'e2e/soak.spec.ts', '--workers=1'], { SOAK: '1' })
