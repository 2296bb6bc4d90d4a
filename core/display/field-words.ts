import { ownEntry } from '../own'

/** Field names that do not read as words. */
const fieldWords: Readonly<Record<string, string>> = {
  mass: 'grams', lines: 'line', setups: 'set-up', priceEachCents: 'price', instead: 'stands for', insteadOf: 'stands for', flies: 'loadout flown', neverFlown: 'never flown', setupId: 'set-up', packLineId: 'pack', lineIds: 'what is on',
  observations: 'weighing together', shavings: 'shaving', records: 'step', cardIds: 'rule cards', reserveG: 'reserve', goalDryG: 'dry goal', goalMinutes: 'minutes goal', goalPriceCents: 'money goal', purposeKind: 'purpose',
  craftClass: 'craft class', archived: 'put away', shave: 'Shave', fit: 'Fit', flying: 'flying', assembly: 'Assemble', aim: 'Aim', altitudeM: 'altitude', temperatureC: 'temperature', reservePercent: 'reserve', endCellV: 'end of the flight',
  warnCellV: 'warning', alsoCardIds: 'cards looked at', overOnPurpose: 'flown over on purpose', gramsG: 'grams off', spreadG: '±', cents: 'money', lossWord: 'what is given up', doneOn: 'done on', realG: 'really came off', slipPercent: 'slip',
  candidateId: 'candidate', lineId: 'line', doneAt: 'done', startedAt: 'begun', overriddenWhy: 'why gone past', skippedWhy: 'why skipped', photoIds: 'photos', clampedMm: 'clamped', engagementMm: 'engagement', freeDepthMm: 'free depth',
  lengthMm: 'length', heightMm: 'height', widthMm: 'width', routeMm: 'way', slackMm: 'slack', haveMm: 'at hand', boardTurnDeg: 'board turned', turnDeg: 'turned', capacityMah: 'capacity', cRating: 'C rating', massG: 'grams', thrustG: 'thrust', priceCents: 'price',
  soldIn: 'sold in', kitId: 'kit', leavesOut: 'leaves out', resolutionG: 'step', capacityG: 'capacity', repeatabilityG: 'repeatability', checkIntervalDays: 'days between checks', toleranceG: 'tolerance', displayG: 'display', benchScale: 'bench scale', singleKeys: 'single keys',
}
/** The name of a field in words. */
export const wordsOfField = (name: string) => ownEntry(fieldWords, name) ?? name.replace(/([a-z])([A-Z])/g, (_all, before: string, capital: string) => `${before} ${capital.toLowerCase()}`)
