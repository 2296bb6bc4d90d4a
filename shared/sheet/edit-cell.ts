import { centsFigure, figure } from '../../core/text/display'
import type { LineFields } from '../../core/changes/commands'
import {
  saidEvidences,
  makeMass,
  slots,
  slotFacts,
  type Evidence,
  type Line,
  type Mass,
  type Slot,
} from '../../core/model/ledger'
import { sumCompensated } from '../../core/maths/numbers'
import { withDisplays } from '../../core/deciding/weigh'
import { isNotRead, readCents, readGrams, readQuantity, splitEnding } from '../../core/text/units'
import { nameSchema } from '../../core/text/schemas'
import type { Typing } from './grid-keys'

/** The columns of the parts sheet that can be typed into, in order. */
export const sheetColumns = ['slot', 'name', 'quantity', 'each', 'grams', 'spread', 'known', 'price'] as const
export type SheetColumn = (typeof sheetColumns)[number]

/** What typing into a column writes; slot and “known by” are chosen from a list. */
export const sheetTyping: Readonly<Record<SheetColumn, Typing>> = {
  slot: 'nothing',
  name: 'letters',
  quantity: 'figures',
  each: 'figures',
  grams: 'figures',
  spread: 'figures',
  known: 'nothing',
  price: 'figures',
}

export type CellEdit = { readonly fields: LineFields } | { readonly problem: string }

/** A letter after the grams says how they are known. */
const evidenceMarks: Record<string, Evidence> = { w: 'weighed', l: 'listed', o: 'worked out', '~': 'guess' }

/**
 * What typing `text` into a cell of a line means, or the sentence that says why it means nothing.
 * `versionId` is used when the grams change. Nothing is changed here.
 */
export function editCell(line: Line, column: SheetColumn, text: string, versionId: string): CellEdit {
  switch (column) {
    case 'name': {
      const name = nameSchema('The name').safeParse(text.trim())
      return name.success ? { fields: { name: name.data } } : { problem: name.error.issues[0]!.message }
    }
    case 'slot':
      return (slots as readonly string[]).includes(text)
        ? { fields: { slot: text as Slot } }
        : { problem: 'Choose one of the slots.' }
    case 'quantity': {
      const read = readQuantity(text)
      if (isNotRead(read)) return read
      // A spread of one's own is said for the line as it is: it grows and shrinks with the number of pieces.
      const { mass } = line
      return {
        fields: {
          quantity: read.quantity,
          ...(mass?.ownSpreadG
            ? {
                mass: {
                  ...mass,
                  versionId,
                  ownSpreadG: Number(((mass.ownSpreadG * read.quantity) / line.quantity).toFixed(6)),
                },
              }
            : {}),
        },
      }
    }
    case 'each':
      return editGrams(line, text, 1, versionId)
    case 'grams':
      return editGrams(line, text, line.quantity, versionId)
    case 'spread':
      return editSpread(line, text, versionId)
    case 'known': {
      if (text !== line.mass?.evidence && !(saidEvidences as readonly string[]).includes(text))
        return { problem: `Choose one of ${saidEvidences.join(', ')}.` }
      if (!line.mass) return { problem: 'Type the grams first, then how they are known.' }
      return {
        fields: {
          mass: {
            ...withDisplays(line.mass),
            versionId,
            evidence: text as Evidence,
            halfRangeG: text === 'typical' ? line.mass.halfRangeG : null,
            origin: 'typed',
            weighing: null,
          },
        },
      }
    }
    case 'price': {
      const read = readCents(text)
      return isNotRead(read) ? read : { fields: { priceEachCents: read.cents } }
    }
  }
}

/** As {@link editCell}, with grams said to be weighed read on the scale at hand: `typed` takes them there, or says why they cannot be. */
export function editCellAt(
  line: Line,
  column: SheetColumn,
  text: string,
  versionId: string,
  typed: (mass: Mass) => { readonly mass: Mass } | { readonly problem: string },
): CellEdit {
  const edited = editCell(line, column, text, versionId)
  if ('problem' in edited || !edited.fields.mass || !['each', 'grams', 'known'].includes(column)) return edited
  const read = typed(edited.fields.mass)
  return 'problem' in read ? read : { fields: { ...edited.fields, mass: read.mass } }
}

function editGrams(line: Line, text: string, valueCount: number, versionId: string): CellEdit {
  if (text.trim() === '') return { fields: { mass: null } }
  const { body, ending } = splitEnding(text.trim(), Object.keys(evidenceMarks))
  const mark = ending === null ? undefined : evidenceMarks[ending]
  const figures = body
  const kept =
    line.mass && line.mass.evidence !== 'typical' && line.mass.evidence !== 'twin' ? line.mass.evidence : 'guess'
  const evidence = mark ?? kept
  const read = readGrams(figures)
  if (!isNotRead(read))
    return { fields: { mass: massFrom(line.mass, versionId, evidence, read.massG, read.stepG, valueCount) } }
  const several = valueCount === 1 ? readSeveral(figures) : null
  if (!several) return read
  if (several.readings.length > line.quantity)
    return {
      problem:
        `${several.readings.length} readings for ${line.quantity} ` +
        `${line.quantity === 1 ? 'piece' : 'pieces'}. Raise “How many” first.`,
    }
  const meanG = Number((sumCompensated(several.readings) / several.readings.length).toFixed(6))
  return {
    fields: {
      mass: { ...massFrom(line.mass, versionId, 'weighed', meanG, several.stepG, 1), pieceReadingsG: several.readings },
    },
  }
}

/** Two or more masses with spaces, semicolons or plus signs between them. */
function readSeveral(text: string): { readings: number[]; stepG: number } | null {
  const parts = text.split(/[\s;+]+/).filter(part => part !== '' && part !== 'g')
  if (parts.length < 2) return null
  const good: { massG: number; stepG: number }[] = []
  for (const part of parts) {
    const read = readGrams(part)
    if (isNotRead(read)) return null
    good.push(read)
  }
  return { readings: good.map(r => r.massG), stepG: Math.max(...good.map(r => r.stepG)) }
}

function massFrom(
  before: Mass | null,
  versionId: string,
  evidence: Evidence,
  valueG: number,
  resolutionG: number,
  valueCount: number,
): Mass {
  const basis = before && before.evidence === evidence ? before.basis : undefined
  return makeMass({ versionId, evidence, valueG, resolutionG, valueCount, ...(basis ? { basis } : {}) })
}

function editSpread(line: Line, text: string, versionId: string): CellEdit {
  if (!line.mass) return { problem: 'Type the grams first, then their spread.' }
  const bare = text.replace('±', '').trim()
  if (bare === '') return { fields: { mass: { ...line.mass, versionId, ownSpreadG: null } } }
  const read = readGrams(bare)
  if (isNotRead(read)) return { problem: read.problem.replace('A mass', 'A spread') }
  return { fields: { mass: { ...line.mass, versionId, ownSpreadG: read.massG } } }
}

/** What stands in the cell when it is opened for editing. */
export function cellText(line: Line, column: SheetColumn): string {
  const mass = line.mass && withDisplays(line.mass)
  switch (column) {
    case 'name':
      return line.name
    case 'slot':
      return line.slot
    case 'quantity':
      return String(line.quantity)
    case 'each':
      if (!mass) return ''
      return mass.pieceReadingsG ? mass.pieceReadingsG.join(' ') : plain(mass.valueG / mass.valueCount)
    case 'grams':
      return mass ? plain((mass.valueG / mass.valueCount) * line.quantity) : ''
    case 'spread':
      return mass?.ownSpreadG == null ? '' : plain(mass.ownSpreadG)
    case 'known':
      return mass?.evidence ?? ''
    case 'price':
      return line.priceEachCents === null ? '' : centsFigure(line.priceEachCents)
  }
}

function plain(value: number): string {
  return figure(value, 4)
}

export function slotLabel(slot: Slot): string {
  return slotFacts[slot].label
}
