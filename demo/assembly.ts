import { blankAssembly, blankRecord, type Assembly, type StepRecord } from '../core/making/assembly'

const done = (stepId: string, minutes: number, at: string, more: Partial<StepRecord> = {}): StepRecord => ({
  ...blankRecord(stepId),
  startedAt: at,
  doneAt: at,
  minutes,
  ...more,
})
const passed = { test: 'passed' } as const

/** What the builder of Quillhaven has put together so far: the indoor racer is finished, the ridge camera stands at a gate. */
export const assemblyOfDemo: Readonly<Record<string, Assembly>> = {
  sherbet: {
    ...blankAssembly,
    records: [
      done('dry-fit', 9, '2026-10-03T17:10:00.000Z', passed),
      done('frame-base', 3, '2026-10-03T17:20:00.000Z'),
      done('motors-place', 14, '2026-10-03T17:36:00.000Z', passed),
      done('board-in', 18, '2026-10-03T17:55:00.000Z'),
      done('motors-join', 4, '2026-10-03T18:00:00.000Z'),
      done('first-power', 4, '2026-10-03T18:06:00.000Z', passed),
      done('motors-test', 7, '2026-10-03T18:14:00.000Z', {
        ...passed,
        note: 'Back left was stiff until its screw came out half a turn.',
      }),
      done('video', 6, '2026-10-03T18:22:00.000Z'),
      done('camera', 11, '2026-10-03T18:35:00.000Z'),
      done('second-power', 5, '2026-10-03T18:41:00.000Z', passed),
      done('bind', 8, '2026-10-03T18:50:00.000Z'),
      done('settings', 31, '2026-10-03T19:22:00.000Z', passed),
      done('close', 9, '2026-10-03T19:33:00.000Z'),
      done('props', 4, '2026-10-03T19:38:00.000Z'),
      done('pack-on', 3, '2026-10-04T09:00:00.000Z'),
      done('weigh', 4, '2026-10-04T09:06:00.000Z'),
      done('maiden', 12, '2026-10-04T10:30:00.000Z', { note: 'Hovers level at 31 %. Nothing warm.' }),
    ],
  },
  marzipan: {
    ...blankAssembly,
    records: [
      done('dry-fit', 22, '2026-11-07T15:05:00.000Z', {
        ...passed,
        note: 'The cased transmitter only just clears the top plate.',
      }),
      done('frame-base', 17, '2026-11-07T15:24:00.000Z'),
      done('motors-place', 19, '2026-11-07T15:46:00.000Z', passed),
      done('board-in', 26, '2026-11-07T16:15:00.000Z'),
      done('capacitor', 12, '2026-11-07T16:29:00.000Z'),
      done('motors-join', 48, '2026-11-07T17:20:00.000Z'),
      {
        ...blankRecord('first-power'),
        startedAt: '2026-11-07T17:25:00.000Z',
        test: 'failed',
        note: 'The limiter stays bright. A beep between plus and minus.',
      },
    ],
  },
}
