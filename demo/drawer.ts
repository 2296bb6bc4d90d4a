import { makePart, type Kit, type Part } from '../core/drawer'
import { makeMass, type Evidence, type Line, type PackFacts, type Slot } from '../core/ledger'
import type { Properties } from '../core/properties'

let made = 0
type Grams = [evidence: Evidence, grams: number]
function part(id: string, slot: Slot, name: string, [evidence, grams]: Grams, owned: number, properties: Properties | null, more: Partial<Part> = {}): Part {
  const listed = evidence === 'listed' ? { valueG: grams, resolutionG: Number.isInteger(grams) ? 1 : 0.1 } : null
  return makePart({ id, slot, name, owned, properties, listing: listed, mass: makeMass({ versionId: `d${++made}`, evidence, valueG: grams, origin: evidence === 'weighed' ? 'typed' : 'listing' }), ...more })
}
const motor = (diameter: number, height: number, kv: number, pattern: string, thrustG: number, amps: number, more: Properties = {}): Properties => ({
  statorDiameterMm: diameter, statorHeightMm: height, kv, cellsMin: diameter < 10 ? 1 : diameter < 13 ? 2 : 3, cellsMax: diameter < 10 ? 1 : diameter < 13 ? 3 : 4, pattern: [pattern], shaftMm: diameter < 12 ? 1 : 1.5, propMount: diameter < 13 ? 'pressed on a shaft' : 'two screws',
  screwThread: diameter < 10 ? 'M1.4' : 'M2', screwDepthMm: 2.4, leadLengthMm: 120, leadAwg: diameter < 10 ? 30 : 24, maxCurrentA: amps,
  bench: [{ throttlePercent: 50, volts: 16, amps: amps * 0.35, thrustG: thrustG * 0.45 }, { throttlePercent: 100, volts: 15.6, amps, thrustG }].map(row => ({ ...row, amps: Number(row.amps.toFixed(2)), thrustG: Math.round(row.thrustG) })), ...more,
})
const screw = (lengthMm: number, head: string, material: string, thread = 'M2'): Properties => ({ thread, lengthMm, head, material })
const pack = (label: string, cells: number, capacityMah: number, chemistry: PackFacts['chemistry'] = 'LiPo', plug = 'two bullets 2 mm, 30 A class'): PackFacts => ({ label, cells, chemistry, capacityMah, cRating: chemistry === 'Li-ion' ? 8 : 80, plug })

export const demoKits: readonly Kit[] = [{ id: 'sparrow-kit', name: 'Pocket Foundry “Sparrow” frame kit, bag 7', priceCents: 3290, link: 'market stall by the lock', note: '', leavesOut: 'The kit leaves out motor screws and the strap.' }]

/** The drawer of the demo: what is owned beyond the builds. Lines of the builds that are parts of it give their own grams. */
export function demoParts(lineOf: (buildId: string, lineId: string) => Line): Part[] {
  const linked = (id: string, buildId: string, lineId: string, owned: number, more: Partial<Part> = {}): Part => {
    const line = lineOf(buildId, lineId)
    return makePart({ id, slot: line.slot, name: line.name, properties: line.properties, listing: line.listing, mass: line.mass, pack: line.pack, priceCents: line.priceEachCents, owned, ...more })
  }
  return [
    part('ostler-1404', 'motor', 'Ostler 1404, 3750 kV', ['listed', 9.1], 4, motor(14, 4, 3750, '9×9 M2', 262, 11.6), { priceCents: 1590, bag: 'motor box' }),
    part('ostler-1504', 'motor', 'Ostler 1504, 3850 kV', ['weighed', 10.96], 1, motor(15, 4, 3850, '12×12 M2', 231, 6.7), { priceCents: 1690, bag: 'motor box', note: 'The spare for Marzipan.' }),
    part('fennel-1404', 'motor', 'Fennel & Rook 1404, 4600 kV', ['listed', 8.6], 4, motor(14, 4, 4600, '9×9 M2', 281, 14.2), { priceCents: 1450, tags: ['fast'] }),
    part('nettle-1505', 'motor', 'Nettle & Daughter 1505, 3900 kV', ['listed', 12.4], 0, motor(15, 5, 3900, '12×12 M2', 318, 13.1), { priceCents: 1890, note: 'Only looked at.' }),
    part('ostler-1303', 'motor', 'Ostler 1303.5, 5500 kV', ['weighed', 6.71], 4, motor(13, 3.5, 5500, '9×9 M2', 176, 9.4), { priceCents: 1350 }),
    part('ostler-1202', 'motor', 'Ostler 1202.5, 6400 kV', ['weighed', 4.63], 2, motor(12, 2.5, 6400, '9×9 M2', 96, 6.5), { priceCents: 1290 }),
    part('tallow-0802', 'motor', 'Tallow Works 0802, 22000 kV', ['weighed', 1.79], 6, motor(8, 2, 22_000, '3 on 6.6 M1.4', 31, 2.2), { priceCents: 950, scrapped: 1, tags: ['indoor'] }),
    part('three-blade-3', 'propeller', 'Three-blade 3.0 in, two-screw hub', ['weighed', 1.49], 16, { diameterMm: 76.2, pitchMm: 58, blades: 3, mount: 'two screws', shaftMm: 1.5, directionPair: true }, { priceCents: 280, soldIn: 4, lost: 3 }),
    part('two-blade-3', 'propeller', 'Two-blade 3.0 in, light', ['listed', 1.1], 8, { diameterMm: 76.2, pitchMm: 50, blades: 2, mount: 'two screws', shaftMm: 1.5, directionPair: true }, { priceCents: 260, soldIn: 4 }),
    part('two-blade-35', 'propeller', 'Two-blade 3.5 in', ['weighed', 1.97], 12, { diameterMm: 89, pitchMm: 64, blades: 2, mount: 'two screws', shaftMm: 1.5, directionPair: true }, { priceCents: 320, soldIn: 4, lost: 2 }),
    part('three-blade-31mm', 'propeller', 'Three-blade 31 mm, pressed on', ['weighed', 0.24], 24, { diameterMm: 31, blades: 3, mount: 'pressed on a shaft', shaftMm: 1, directionPair: true }, { priceCents: 180, soldIn: 4, tags: ['indoor'] }),
    part('cap-470-35', 'capacitor', '470 µF 35 V, low resistance', ['weighed', 2.66], 3, { capacitanceUf: 470, ratedV: 35, diameterMm: 10, lengthMm: 16 }, { priceCents: 120 }),
    part('cap-330-25', 'capacitor', '330 µF 25 V', ['listed', 1.9], 2, { capacitanceUf: 330, ratedV: 25, diameterMm: 8, lengthMm: 14 }, { priceCents: 90 }),
    part('receiver-wide', 'receiver', '2.4 GHz, ceramic aerial', ['weighed', 0.62], 1, { radioFamily: '2.4 GHz, wide', voltsMin: 3.3, voltsMax: 5.5, drawA: 0.06, aerials: 1, aerialOn: true }, { priceCents: 1490 }),
    part('receiver-old', 'receiver', 'Older 2.4 GHz receiver, two wires', ['weighed', 1.31], 1, { radioFamily: '2.4 GHz, old', voltsMin: 4, voltsMax: 9, drawA: 0.08, aerials: 2, aerialOn: true }, { note: 'From the first craft; speaks another family.' }),
    linked('small-satellite', 'marzipan', 'gps', 1, { bag: 'small boards' }),
    part('nano-14', 'camera', 'Digital nano camera, 14 mm', ['weighed', 4.09], 1, { widthMm: 14, videoFamily: 'digital', voltsMin: 4.5, voltsMax: 5.5, drawA: 0.25, viewDeg: 155 }, { priceCents: 4900 }),
    part('analogue-19', 'camera', 'Analogue micro camera, 19 mm', ['weighed', 7.9], 1, { widthMm: 19, videoFamily: 'analogue', voltsMin: 5, voltsMax: 36, drawA: 0.1 }, { priceCents: 2490 }),
    part('analogue-vtx', 'video transmitter', 'Fennel & Rook analogue, 400 mW', ['listed', 4.6], 1, { videoFamily: 'analogue', voltsMin: 4.5, voltsMax: 26, drawA: 0.7, powerMw: 400, pattern: ['20×20 M2'], aerialConnector: 'small push-on' }, { priceCents: 2790 }),
    part('stub-left', 'aerial', 'Stub, left-hand', ['weighed', 1.28], 2, { connector: 'small push-on', polarisation: 'left hand', serves: 'video', heightMm: 28 }, { priceCents: 990 }),
    part('stub-right', 'aerial', 'Stub, right-hand', ['weighed', 1.3], 1, { connector: 'small push-on', polarisation: 'right hand', serves: 'video', heightMm: 28 }, { priceCents: 990 }),
    part('board-16', 'board', 'Nettle & Daughter board, 16 mm', ['weighed', 2.41], 1, { pattern: ['16×16 M2'], widthMm: 21, lengthMm: 21, heightMm: 6, cellsMin: 2, cellsMax: 4, outputs: [{ name: '5 V', volts: 5, amps: 1.2 }] }, { priceCents: 3890 }),
    part('esc-16', 'speed controller', 'Four in one, 20 A, 16 mm', ['weighed', 3.12], 1, { pattern: ['16×16 M2'], widthMm: 22, lengthMm: 24, heightMm: 5, cellsMin: 2, cellsMax: 4, ampsContinuous: 20, ampsBurst: 25 }, { priceCents: 4190 }),
    part('strap-12', 'strap', 'Fabric strap 12 mm, 130 mm', ['weighed', 2.14], 3, { lengthMm: 130, widthMm: 12, material: 'fabric' }, { priceCents: 180 }),
    part('strap-rubber', 'strap', 'Rubber ring', ['weighed', 0.61], 10, { lengthMm: 60, widthMm: 3, material: 'rubber' }, { priceCents: 150, soldIn: 10, tags: ['indoor'] }),
    linked('m2x6-steel', 'praline', 'screws', 40, { priceCents: 240, soldIn: 40, bag: 'screw tin, lid 1' }),
    linked('m2x10-steel', 'nougat', 'screws', 30, { priceCents: 270, soldIn: 30, bag: 'screw tin, lid 2' }),
    part('m2x8-titanium', 'screw', 'M2 × 8 button, titanium', ['worked out', 0.157], 20, screw(8, 'button', 'titanium alloy (Ti-6Al-4V)'), { priceCents: 1190, soldIn: 20, bag: 'screw tin, lid 3' }),
    part('m2x5-steel', 'screw', 'M2 × 5 button, steel', ['worked out', 0.197], 24, screw(5, 'button', 'alloy steel'), { priceCents: 210, soldIn: 40, bag: 'screw tin, lid 1' }),
    part('m2x7-alu', 'screw', 'M2 × 7 button, aluminium', ['worked out', 0.092], 12, screw(7, 'button', 'aluminium 7075'), { priceCents: 640, soldIn: 12, bag: 'screw tin, lid 3' }),
    part('standoff-18', 'standoff', 'Standoff M2 × 18, aluminium', ['weighed', 0.52], 8, { thread: 'M2', lengthMm: 18, outerMm: 4, material: 'aluminium' }, { priceCents: 480, soldIn: 8 }),
    part('standoff-20', 'standoff', 'Standoff M2 × 20, aluminium', ['weighed', 0.58], 6, { thread: 'M2', lengthMm: 20, outerMm: 4, material: 'aluminium' }, { priceCents: 480, soldIn: 8 }),
    part('lead-16', 'power lead', 'AWG 16 lead with 30 A class plug, 120 mm', ['weighed', 7.42], 1, { awg: 16, lengthMm: 120, plug: 'two bullets 2 mm, 30 A class' }, { priceCents: 460 }),
    part('sounder-own', 'sounder', 'Self-powered sounder', ['weighed', 2.31], 1, { voltsMin: 4, voltsMax: 6, drawA: 0.03, selfPowered: true }, { priceCents: 690 }),
    part('lamp-tail', 'payload', 'Tail lamp, two points', ['weighed', 1.12], 2, { voltsMin: 4.5, voltsMax: 5.5, drawA: 0.12 }, { priceCents: 220 }),
    part('pad-thin', 'pad', 'Thin grip pad', ['weighed', 0.48], 4, { lengthMm: 40, widthMm: 25, thicknessMm: 1 }, { priceCents: 90 }),
    part('sparrow-plates', 'frame', 'Pocket Foundry “Sparrow” plates, 2.5 mm arms', ['weighed', 34.6], 1, { propMaxMm: 78, wheelbaseMm: 140, motorPatterns: ['9×9 M2'], boardPatterns: ['25.5×25.5 M2'], freeHeightMm: 18, cameraWidthMm: 14, armThicknessMm: 2.5, plateThicknessMm: 1.5, make: 'single arms' }, { kitId: 'sparrow-kit', bag: 'bag 7' }),
    part('sparrow-screws', 'screw', 'M2 × 6 button from the kit', ['worked out', 0.214], 12, screw(6, 'button', 'alloy steel'), { kitId: 'sparrow-kit', bag: 'bag 7', missing: 1, note: 'Thirteen on the leaflet, twelve in the bag.' }),
    part('sparrow-standoffs', 'standoff', 'Knurled standoffs M2 × 18', ['weighed', 0.66], 4, { thread: 'M2', lengthMm: 18, outerMm: 4.5, material: 'aluminium' }, { kitId: 'sparrow-kit', bag: 'bag 7' }),
    part('wren-arm', 'other', 'Spare arm for “Wren 3”, 3 mm', ['weighed', 6.05], 2, null, { priceCents: 790 }),
    part('d1', 'pack', '4S 650 mAh, light', ['weighed', 71.4], 1, { widthMm: 30, lengthMm: 66, heightMm: 26, resistanceMohm: 10 }, { pack: pack('D1', 4, 650), priceCents: 1890 }),
    part('d2', 'pack', '4S 850 mAh, long shape', ['weighed', 94.2], 1, { widthMm: 28, lengthMm: 84, heightMm: 29, resistanceMohm: 8.5 }, { pack: pack('D2', 4, 850), priceCents: 2390 }),
    part('d3', 'pack', '4S 550 mAh', ['listed', 60], 0, { widthMm: 29, lengthMm: 60, heightMm: 24 }, { pack: pack('D3', 4, 550), priceCents: 1690, note: 'Only looked at.' }),
  ]
}
