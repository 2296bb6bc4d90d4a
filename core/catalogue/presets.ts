import { CoreInputError } from '../errors'
import { makeLine, makeMass, slotFacts, type Chemistry, type Line, type Slot } from '../ledger'
import { typicalMass, typicalProperties } from './typical'

/** One usual line of a craft class: slot, class of part, how many. */
type PresetLine = readonly [slot: Slot, partClass: string, quantity?: number]
interface PresetPack { readonly cells: number, readonly chemistry: Chemistry, readonly capacityMah: number }
interface Preset { readonly name: string, readonly lines: readonly PresetLine[], readonly pack: PresetPack }

const sundries: readonly PresetLine[] = [['other', 'solder for a whole build'], ['other', 'tape and heat-shrink for a whole build']]

/** The usual slots of each craft class. Every class counts strap, solder and tape, so that a plan is not silently short. */
export const craftPresets: readonly Preset[] = [
  { name: '65 mm ducted', pack: { cells: 1, chemistry: 'LiHV', capacityMah: 300 }, lines: [
    ['frame', '65 mm ducted'], ['canopy', '1S whoop'], ['motor', '0802', 4], ['propeller', '31 mm', 4], ['board', 'all-in-one 1S'], ['power lead', '1S plug and lead'],
    ['camera', 'analogue nano'], ['video transmitter', 'analogue 25-400 mW'], ['aerial', 'wire dipole'], ...sundries, ['pack', '1S 300 mAh']] },
  { name: '75 mm ducted', pack: { cells: 1, chemistry: 'LiHV', capacityMah: 450 }, lines: [
    ['frame', '75 mm ducted'], ['canopy', '1S whoop'], ['motor', '1002', 4], ['propeller', '40 mm', 4], ['board', 'all-in-one 1S'], ['power lead', '1S plug and lead'],
    ['camera', 'digital nano'], ['video transmitter', 'digital whoop class'], ['aerial', 'wire dipole'], ...sundries, ['pack', '1S 450 mAh']] },
  { name: '2.5-inch open', pack: { cells: 2, chemistry: 'LiPo', capacityMah: 450 }, lines: [
    ['frame', '2.5-inch open'], ['canopy', '2-3 inch printed'], ['motor', '1103', 4], ['propeller', '2.5 in', 4], ['board', 'all-in-one 2-4S 12-20 A'], ['power lead', '30 A class plug and 16-18 AWG'],
    ['capacitor', '220-470 uF 25-35 V'], ['camera', 'analogue nano'], ['video transmitter', 'analogue 25-400 mW'], ['aerial', 'wire dipole'], ['receiver', '2.4 GHz ceramic or wire'],
    ['strap', 'fabric 10-12 mm'], ...sundries, ['pack', '2S 450 mAh']] },
  { name: '3-inch ultralight', pack: { cells: 4, chemistry: 'LiPo', capacityMah: 650 }, lines: [
    ['frame', '3-inch open ultralight'], ['canopy', '2-3 inch printed'], ['motor', '1404', 4], ['propeller', '3 in three-blade', 4], ['board', 'all-in-one 4-6S 35-45 A'], ['power lead', '30 A class plug and 16-18 AWG'],
    ['capacitor', '220-470 uF 25-35 V'], ['camera', 'digital micro'], ['video transmitter', 'digital light'], ['aerial', 'circular stub'], ['receiver', '2.4 GHz ceramic or wire'],
    ['strap', 'fabric 15-20 mm'], ['pad', 'pack grip pad'], ...sundries, ['pack', '4S 650 mAh']] },
  { name: '3.5-inch open', pack: { cells: 4, chemistry: 'LiPo', capacityMah: 650 }, lines: [
    ['frame', '3.5-inch freestyle'], ['motor', '1404', 4], ['propeller', '3.5 in', 4], ['board', 'all-in-one 4-6S 35-45 A'], ['power lead', '30 A class plug and 16-18 AWG'],
    ['capacitor', '220-470 uF 25-35 V'], ['camera', 'digital nano'], ['video transmitter', 'digital light'], ['aerial', 'circular stub'], ['receiver', '2.4 GHz ceramic or wire'],
    ['strap', 'fabric 15-20 mm'], ['pad', 'pack grip pad'], ...sundries, ['pack', '4S 650 mAh']] },
  { name: '4-inch long range', pack: { cells: 4, chemistry: 'Li-ion', capacityMah: 3000 }, lines: [
    ['frame', '4-inch ultralight'], ['motor', '1404', 4], ['propeller', '4 in', 4], ['board', 'all-in-one 4-6S 35-45 A'], ['power lead', '30 A class plug and 16-18 AWG'],
    ['capacitor', '220-470 uF 25-35 V'], ['camera', 'digital nano'], ['video transmitter', 'digital light'], ['aerial', 'circular stub'], ['receiver', '2.4 GHz two-aerial'],
    ['navigation', 'small satellite receiver'], ['sounder', 'self-powered or plain'], ['strap', 'fabric 15-20 mm', 2], ['pad', 'pack grip pad'], ...sundries, ['pack', '4S 3000 mAh lithium-ion']] },
]

/**
 * The lines of a craft class with typical masses. `newId` makes ids for lines and mass versions.
 * Throws {@link CoreInputError} for a class that is not there.
 */
export function presetLines(craftClass: string, newId: () => string): Line[] {
  const preset = craftPresets.find(p => p.name === craftClass)
  if (!preset) throw new CoreInputError('presetLines', 'craftClass', craftClass, 'one of the known classes')
  return preset.lines.map(([slot, partClass, quantity = 1]) => {
    const typical = typicalMass(slot, partClass)
    if (!typical) throw new CoreInputError('presetLines', 'partClass', `${slot} ${partClass}`, 'a class of the typical masses')
    return makeLine({
      id: newId(), slot, quantity,
      name: slot === 'other' ? capital(partClass) : `${slotFacts[slot].label}, ${partClass}`,
      mass: makeMass({
        versionId: newId(), evidence: 'typical', valueG: round4((typical.lowG + typical.highG) / 2), halfRangeG: round4((typical.highG - typical.lowG) / 2),
        origin: `typical for ${partClass}`,
      }),
      properties: typicalProperties(slot, partClass),
      pack: slot === 'pack' ? { label: 'P1', ...preset.pack, cRating: null, plug: '' } : null,
    })
  })
}

/** The class ranges have one or two decimals; their middle is kept to four, free of binary dust. */
function round4(value: number): number {
  return Math.round(value * 1e4) / 1e4
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1)
}
