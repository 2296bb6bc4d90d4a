/** Writes THIRD-PARTY.md: what is shipped with the application, by whom it may be used, from the lock file and the packages themselves. */
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { root } from './prepare.mjs'

const { packages } = JSON.parse(readFileSync(join(root, 'package-lock.json'), 'utf8'))
const rows = new Map()
for (const [path, { version, license, dev, devOptional, optional }] of Object.entries(packages)) {
  if (path === '' || dev || devOptional || optional) continue
  const name = path.replace(/^.*node_modules\//, '')
  const own = join(root, path, 'package.json')
  const said = license ?? (existsSync(own) ? JSON.parse(readFileSync(own, 'utf8')).license : undefined)
  rows.set(
    `${name} ${version}`,
    `| ${name} | ${version} | ${typeof said === 'string' ? said : (said?.type ?? 'see the package')} |`,
  )
}
const head = `# What others have made

Packages the application is built from or runs with, with the licence each names. Their texts lie in the packages. Written by
\`npm run third-party\`.

| package | version | licence |
| --- | --- | --- |
`
writeFileSync(join(root, 'THIRD-PARTY.md'), `${head}${[...rows.values()].sort().join('\n')}\n`)
