import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { readBuildFile } from './build-file'

interface FileText {
  versions: Record<string, number>
  build: { places: { packTurnDeg?: number; packSide: string; pieces: unknown[] } }
}
const text = readFileSync('demo/builds/marzipan.build.json', 'utf8')
/** The same build as its first version wrote it. */
function ofFirstVersion(change: (file: FileText) => void = () => undefined): string {
  const file = JSON.parse(text) as FileText
  file.versions.places = 1
  delete file.build.places.packTurnDeg
  change(file)
  return JSON.stringify(file)
}

describe('places of pieces as earlier versions wrote them', () => {
  it('the first had no word of how a pack lies: along the nose', () => {
    const read = readBuildFile(ofFirstVersion())
    expect('file' in read && read.file.build.places).toEqual((JSON.parse(text) as FileText).build.places)
  })
  it('side and pieces stay as they were said', () => {
    const read = readBuildFile(
      ofFirstVersion(file => {
        file.build.places.packSide = 'below'
        file.build.places.pieces = []
      }),
    )
    expect('file' in read && read.file.build.places).toEqual({ packSide: 'below', packTurnDeg: 0, pieces: [] })
  })
  it('the present one without it is refused, and so is a turn no pack has', () => {
    for (const packTurnDeg of [undefined, 45]) {
      const file = JSON.parse(text) as FileText
      file.build.places.packTurnDeg = packTurnDeg
      expect(readBuildFile(JSON.stringify(file))).toHaveProperty('problem')
    }
  })
})
