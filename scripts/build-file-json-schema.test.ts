import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import Ajv from 'ajv/dist/2020'
import addFormats from 'ajv-formats'
import { describe, expect, it } from 'vitest'
import { buildFileJsonSchema } from './build-file-json-schema'

const root = join(import.meta.dirname, '..')
const published = JSON.parse(readFileSync(join(root, 'docs/formats/build-file.schema.json'), 'utf8'))

describe('the published schema of the build file', () => {
  it('is the one the application uses', () => {
    expect(published).toEqual(JSON.parse(JSON.stringify(buildFileJsonSchema())))
  })
  it('accepts every demo build and refuses a negative mass', () => {
    const ajv = new Ajv({ strict: false })
    addFormats(ajv)
    const validate = ajv.compile(published)
    for (const name of ['sherbet', 'praline', 'marzipan', 'nougat', 'treacle']) {
      const file = JSON.parse(readFileSync(join(root, `demo/builds/${name}.build.json`), 'utf8'))
      expect(validate(file), JSON.stringify(validate.errors)).toBe(true)
      file.build.lines[0].mass.valueG = -1
      expect(validate(file)).toBe(false)
    }
  })
})
