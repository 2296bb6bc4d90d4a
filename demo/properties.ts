import type { Feed } from '../core/model/ledger'
import type { Properties } from '../core/model/properties'

/** What is known of a line apart from its grams. */
export interface Known {
  readonly properties?: Properties
  readonly feed?: Feed
  readonly partId?: string
}

const bullets = 'two bullets 2 mm, 30 A class'
const board35: Properties = {
  pattern: ['25.5×25.5 M2'],
  widthMm: 33,
  lengthMm: 33,
  heightMm: 7.5,
  cellsMin: 2,
  cellsMax: 6,
  ampsContinuous: 35,
  ampsBurst: 45,
  outputs: [
    { name: '3.3 V', volts: 3.3, amps: 0.3 },
    { name: '5 V', volts: 5, amps: 2 },
    { name: '9 V', volts: 9, amps: 1.5 },
  ],
  provides: ['speed controller'],
}
const wideReceiver: Properties = {
  radioFamily: '2.4 GHz, wide',
  voltsMin: 3.3,
  voltsMax: 5.5,
  drawA: 0.06,
  aerialOn: true,
  aerials: 1,
}
const satellite: Properties = { voltsMin: 3.6, voltsMax: 5.5, drawA: 0.25, widthMm: 18, lengthMm: 18, heightMm: 6 }
const pack4s = (lengthMm: number, heightMm: number, resistanceMohm: number, life: Properties = {}): Properties => ({
  widthMm: 30,
  lengthMm,
  heightMm,
  resistanceMohm,
  resistanceFrom: 'measured',
  balanceLead: true,
  ...life,
})
/** How a pack is kept. */
const kept = (boughtOn: string, lastChargedOn: string, chargePolicy = 'full', packState = 'fine'): Properties => ({
  packState,
  boughtOn,
  chargePolicy,
  lastChargedOn,
})
const on = (from: string, output = ''): Feed => ({ from, output })

/** Bench tables made up for the demo: throttle, volts, amps, grams. */
const bench1404 = [
  [20, 16.4, 0.7, 34],
  [40, 16.3, 2.1, 86],
  [60, 16.1, 4.4, 148],
  [80, 15.9, 7.9, 214],
  [100, 15.6, 11.6, 262],
].map(([throttlePercent, volts, amps, thrustG]) => ({
  throttlePercent: throttlePercent!,
  volts: volts!,
  amps: amps!,
  thrustG: thrustG!,
}))
const bench1504 = [
  [20, 16.4, 0.8, 38],
  [40, 16.3, 1.9, 88],
  [60, 16.2, 3.4, 140],
  [80, 16, 5.1, 190],
  [100, 15.8, 6.7, 231],
].map(([throttlePercent, volts, amps, thrustG]) => ({
  throttlePercent: throttlePercent!,
  volts: volts!,
  amps: amps!,
  thrustG: thrustG!,
}))

/** Properties, feeds and links of the demo builds, by build and line. */
export const knownOf: Readonly<Record<string, Readonly<Record<string, Known>>>> = {
  sherbet: {
    frame: {
      properties: {
        ductMm: 33.2,
        wheelbaseMm: 66,
        motorPatterns: ['3 on 6.6 M1.4'],
        boardPatterns: ['25.5×25.5 M1.4'],
        freeHeightMm: 16,
        plateThicknessMm: 1,
        make: 'one piece',
        trayLengthMm: 62,
        trayWidthMm: 12,
      },
    },
    canopy: { properties: { cameraWidthMm: 14 } },
    motors: {
      properties: {
        statorDiameterMm: 8,
        statorHeightMm: 2,
        kv: 19500,
        cellsMin: 1,
        cellsMax: 1,
        pattern: ['3 on 6.6 M1.4'],
        shaftMm: 1,
        propMount: 'pressed on a shaft',
        screwThread: 'M1.4',
        screwDepthMm: 2.2,
        leadLengthMm: 40,
        plug: 'three-pin 1.25 mm pitch',
        leadAwg: 30,
        maxCurrentA: 1.9,
      },
    },
    props: { properties: { diameterMm: 31, blades: 3, mount: 'pressed on a shaft', shaftMm: 1, directionPair: true } },
    board: {
      properties: {
        pattern: ['25.5×25.5 M1.4'],
        widthMm: 29,
        lengthMm: 29,
        heightMm: 5.5,
        cellsMin: 1,
        cellsMax: 1,
        ampsContinuous: 5,
        ampsBurst: 6,
        outputs: [{ name: '5 V', volts: 5, amps: 0.6 }],
        radioFamily: '2.4 GHz, wide',
        videoFamily: 'analogue',
        provides: ['receiver', 'speed controller', 'video transmitter'],
      },
    },
    lead: { properties: { awg: 22, lengthMm: 45, plug: 'two round pins 1.0 mm' } },
    camera: {
      properties: { widthMm: 14, videoFamily: 'analogue', voltsMin: 3.3, voltsMax: 5.5, drawA: 0.11, viewDeg: 150 },
      feed: on('board', '5 V'),
    },
    aerial: { properties: { connector: 'soldered', polarisation: 'linear', serves: 'video', heightMm: 30 } },
    s1: { properties: { widthMm: 11, lengthMm: 60, heightMm: 6.5, ...kept('2026-01-14', '2026-10-02') } },
    s2: {
      properties: {
        widthMm: 11,
        lengthMm: 60,
        heightMm: 6.5,
        ...kept('2025-02-20', '2026-09-21', 'full', 'tired'),
        cautions: 'One corner is dented: look at it before each charge.',
      },
    },
  },
  praline: {
    frame: {
      properties: {
        propMaxMm: 64,
        wheelbaseMm: 115,
        motorPatterns: ['9×9 M2', '4 on 9 M2'],
        boardPatterns: ['25.5×25.5 M2'],
        freeHeightMm: 16,
        armThicknessMm: 2,
        plateThicknessMm: 2,
        make: 'one piece',
        trayLengthMm: 60,
        trayWidthMm: 28,
      },
    },
    canopy: { properties: { cameraWidthMm: 14 } },
    motors: {
      properties: {
        statorDiameterMm: 12,
        statorHeightMm: 2.5,
        kv: 6400,
        cellsMin: 2,
        cellsMax: 3,
        pattern: ['9×9 M2'],
        shaftMm: 1.5,
        propMount: 'pressed on a shaft',
        screwThread: 'M2',
        screwDepthMm: 2.5,
        leadLengthMm: 45,
        leadAwg: 28,
        maxCurrentA: 6.5,
      },
    },
    props: {
      properties: { diameterMm: 63.5, blades: 3, mount: 'pressed on a shaft', shaftMm: 1.5, directionPair: true },
    },
    board: {
      properties: {
        pattern: ['25.5×25.5 M2'],
        widthMm: 29,
        lengthMm: 29,
        heightMm: 6,
        cellsMin: 2,
        cellsMax: 4,
        ampsContinuous: 12,
        ampsBurst: 15,
        outputs: [{ name: '5 V', volts: 5, amps: 1.5 }],
        provides: ['speed controller'],
      },
    },
    lead: { properties: { awg: 18, lengthMm: 60, plug: 'two bullets 2 mm' } },
    capacitor: { properties: { capacitanceUf: 220, ratedV: 25, diameterMm: 6.3, lengthMm: 11 } },
    guards: { properties: { ductMm: 70 } },
    camera: {
      properties: { widthMm: 14, videoFamily: 'analogue', voltsMin: 3.3, voltsMax: 5.5, drawA: 0.12 },
      feed: on('board', '5 V'),
    },
    vtx: {
      properties: {
        videoFamily: 'analogue',
        voltsMin: 3.3,
        voltsMax: 5.5,
        drawA: 0.55,
        powerMw: 200,
        pattern: ['25.5×25.5 M2'],
        widthMm: 28,
        lengthMm: 28,
        heightMm: 3.5,
        aerialConnector: 'soldered',
      },
      feed: on('board', '5 V'),
    },
    aerial: { properties: { connector: 'soldered', polarisation: 'linear', serves: 'video', heightMm: 32 } },
    receiver: { properties: wideReceiver, feed: on('board', '5 V') },
    screws: {
      properties: { thread: 'M2', lengthMm: 6, head: 'button', material: 'alloy steel' },
      partId: 'm2x6-steel',
    },
    q1: { properties: { widthMm: 27, lengthMm: 54, heightMm: 13, ...kept('2026-03-02', '2026-10-01') } },
    q2: {
      properties: {
        widthMm: 27,
        lengthMm: 57,
        heightMm: 14,
        ...kept('2026-04-18', '2026-10-01', 'own end voltage'),
        chargeToV: 4.2,
      },
    },
    q3: {
      properties: { widthMm: 30, lengthMm: 58, heightMm: 18, ...kept('2024-06-05', '2026-07-12', 'storage', 'tired') },
    },
  },
  marzipan: {
    frame: {
      properties: {
        propMaxMm: 78,
        wheelbaseMm: 146,
        motorPatterns: ['9×9 M2', '12×12 M2'],
        boardPatterns: ['25.5×25.5 M2', '16×16 M2'],
        freeHeightMm: 20,
        cameraWidthMm: 14,
        armThicknessMm: 3,
        plateThicknessMm: 2,
        make: 'single arms',
        trayLengthMm: 90,
        trayWidthMm: 38,
      },
    },
    motors: {
      properties: {
        statorDiameterMm: 15,
        statorHeightMm: 4,
        kv: 3850,
        cellsMin: 3,
        cellsMax: 4,
        pattern: ['12×12 M2'],
        shaftMm: 1.5,
        propMount: 'two screws',
        screwThread: 'M2',
        screwDepthMm: 2.4,
        leadLengthMm: 62,
        leadAwg: 24,
        maxCurrentA: 6.7,
        bench: bench1504,
      },
    },
    props: {
      properties: { diameterMm: 76.2, pitchMm: 58, blades: 3, mount: 'two screws', shaftMm: 1.5, directionPair: true },
    },
    board: { properties: board35 },
    lead: { properties: { awg: 16, lengthMm: 55, plug: bullets } },
    capacitor: { properties: { capacitanceUf: 470, ratedV: 16, diameterMm: 8, lengthMm: 12 } },
    camera: {
      properties: { widthMm: 14, videoFamily: 'digital', voltsMin: 4.5, voltsMax: 5.5, drawA: 0.25, viewDeg: 155 },
      feed: on('vtx', 'camera'),
    },
    vtx: {
      properties: {
        videoFamily: 'digital',
        voltsMin: 7,
        voltsMax: 13,
        drawA: 1.14,
        powerMw: 600,
        pattern: ['25.5×25.5 M2'],
        widthMm: 31,
        lengthMm: 31,
        heightMm: 6,
        aerialConnector: 'small push-on',
        outputs: [{ name: 'camera', volts: 5, amps: 0.5 }],
      },
      feed: on('board', '9 V'),
    },
    'vtx-open': {
      properties: {
        videoFamily: 'digital',
        voltsMin: 7,
        voltsMax: 26,
        drawA: 1.1,
        powerMw: 500,
        pattern: ['25.5×25.5 M2'],
        widthMm: 29,
        lengthMm: 29,
        heightMm: 5,
        aerialConnector: 'small push-on',
        outputs: [{ name: 'camera', volts: 5, amps: 0.5 }],
      },
    },
    'vtx-analogue': {
      properties: {
        videoFamily: 'analogue',
        voltsMin: 4.5,
        voltsMax: 26,
        drawA: 0.7,
        powerMw: 400,
        pattern: ['20×20 M2'],
        aerialConnector: 'small push-on',
      },
    },
    'vtx-long': {
      properties: {
        videoFamily: 'digital',
        voltsMin: 7,
        voltsMax: 26,
        drawA: 1.7,
        powerMw: 1000,
        pattern: ['20×20 M2', '25.5×25.5 M2'],
        widthMm: 34,
        lengthMm: 34,
        heightMm: 12,
        aerialConnector: 'small push-on',
        outputs: [{ name: 'camera', volts: 5, amps: 0.5 }],
      },
    },
    aerial: {
      properties: {
        connector: 'small push-on',
        polarisation: 'left hand',
        bandLowMhz: 5600,
        bandHighMhz: 6000,
        serves: 'video',
        heightMm: 28,
      },
    },
    receiver: { properties: wideReceiver, feed: on('board', '5 V') },
    screws: { properties: { thread: 'M2', lengthMm: 8, head: 'button', material: 'alloy steel' } },
    lamp: { properties: { voltsMin: 5, voltsMax: 12, drawA: 0.6 }, feed: on('board', '9 V') },
    gps: { properties: satellite, feed: on('board', '5 V'), partId: 'small-satellite' },
    p4: { properties: pack4s(72, 28, 9, kept('2026-02-11', '2026-10-03')) },
    p7: { properties: pack4s(76, 30, 8, kept('2026-02-11', '2026-09-12')) },
  },
  nougat: {
    frame: {
      properties: {
        propMaxMm: 92,
        wheelbaseMm: 168,
        motorPatterns: ['12×12 M2', '9×9 M2'],
        boardPatterns: ['25.5×25.5 M2', '20×20 M3'],
        freeHeightMm: 24,
        cameraWidthMm: 19,
        armThicknessMm: 4,
        plateThicknessMm: 2,
        make: 'single arms',
        trayLengthMm: 100,
        trayWidthMm: 42,
      },
    },
    motors: {
      properties: {
        statorDiameterMm: 14,
        statorHeightMm: 4,
        kv: 3600,
        cellsMin: 3,
        cellsMax: 4,
        pattern: ['9×9 M2'],
        shaftMm: 1.5,
        propMount: 'two screws',
        screwThread: 'M2',
        screwDepthMm: 2.6,
        leadLengthMm: 150,
        leadAwg: 24,
        maxCurrentA: 7,
        bench: bench1404,
      },
    },
    props: {
      properties: { diameterMm: 89, pitchMm: 64, blades: 2, mount: 'two screws', shaftMm: 1.5, directionPair: true },
    },
    board: { properties: board35 },
    lead: { properties: { awg: 16, lengthMm: 90, plug: bullets } },
    capacitor: { properties: { capacitanceUf: 470, ratedV: 35, diameterMm: 10, lengthMm: 16 } },
    camera: {
      properties: { widthMm: 19, videoFamily: 'digital', voltsMin: 4.5, voltsMax: 5.5, drawA: 0.25 },
      feed: on('vtx', 'camera'),
    },
    vtx: {
      properties: {
        videoFamily: 'digital',
        voltsMin: 7,
        voltsMax: 13,
        drawA: 1.1,
        powerMw: 500,
        pattern: ['25.5×25.5 M2'],
        widthMm: 32,
        lengthMm: 32,
        heightMm: 7,
        aerialConnector: 'small push-on',
        outputs: [{ name: 'camera', volts: 5, amps: 0.5 }],
      },
      feed: on('board', '9 V'),
    },
    aerial: { properties: { connector: 'small push-on', polarisation: 'left hand', serves: 'video', heightMm: 62 } },
    receiver: { properties: { ...wideReceiver, aerials: 2 }, feed: on('board', '5 V') },
    heat: {
      properties: { voltsMin: 4.5, voltsMax: 5.5, drawA: 0.9, widthMm: 21, lengthMm: 21, heightMm: 15 },
      feed: on('board', '5 V'),
    },
    screws: {
      properties: { thread: 'M2', lengthMm: 10, head: 'socket cap', material: 'alloy steel' },
      partId: 'm2x10-steel',
    },
    n1: { properties: pack4s(70, 28, 9.5, kept('2025-11-30', '2026-10-03')) },
  },
  treacle: {
    motors: {
      properties: {
        statorDiameterMm: 14,
        statorHeightMm: 4,
        kv: 2750,
        cellsMin: 2,
        cellsMax: 4,
        pattern: ['9×9 M2'],
        shaftMm: 1.5,
        propMount: 'two screws',
        leadLengthMm: 150,
        leadAwg: 24,
        bench: bench1404,
      },
    },
    props: { properties: { diameterMm: 101.6, blades: 2 } },
    camera: { properties: { widthMm: 14, videoFamily: 'digital', voltsMin: 4.5, voltsMax: 5.5, drawA: 0.25 } },
    vtx: {
      properties: {
        videoFamily: 'digital',
        voltsMin: 7,
        voltsMax: 26,
        drawA: 1.1,
        powerMw: 500,
        aerialConnector: 'small push-on',
        outputs: [{ name: 'camera', volts: 5, amps: 0.5 }],
      },
    },
    receiver: { properties: { radioFamily: '2.4 GHz, wide' } },
    gps: { properties: satellite },
    capacitor: { properties: { capacitanceUf: 470, ratedV: 35 } },
  },
}
