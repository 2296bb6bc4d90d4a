import { figure } from '../../../text/display'
import { packLabel, type Line } from '../../../model/ledger'
import { listOf, measureOf, meetingPatterns, textOf } from '../../../model/properties'
import { pairCheck, seats } from './pair'
import { way, type Check } from './types'

const mm = (line: Line, key: string) => measureOf(line, key)!
const shown = (value: number) => figure(value, 2)

/** Holes, props and the room they turn in. */
export const holeAndPropChecks: readonly Check[] = [
  pairCheck({
    id: 'motor-pattern',
    title: 'Motor holes',
    severity: 'clash',
    a: ['motor'],
    b: seats('motorPatterns'),
    anyOf: true,
    needs: { a: ['pattern'], b: ['motorPatterns'] },
    judge(motor, frame) {
      const [mine, theirs] = [listOf(motor, 'pattern')!, listOf(frame, 'motorPatterns')!]
      const meeting = meetingPatterns(mine, theirs)
      if (!meeting)
        return {
          title: 'Motor holes do not meet the arms',
          sentence: `The motor has ${mine.join(' or ')}, the frame is drilled ${theirs.join(' or ')}.`,
          ways: [way('A motor with a pattern the frame has'), way('Arms drilled for this motor')],
        }
      if (meeting.mine.thread && meeting.theirs.thread && meeting.mine.thread !== meeting.theirs.thread)
        return {
          severity: 'check',
          title: 'Motor screws and holes differ',
          sentence: `The motor takes ${meeting.mine.thread}, the arm is drilled for ${meeting.theirs.thread}.`,
        }
      return { fits: `motor ${meeting.mine.text}` }
    },
  }),
  pairCheck({
    id: 'prop-room',
    title: 'Props and the frame',
    severity: 'clash',
    a: ['propeller'],
    b: context => [...seats('propMaxMm|ductMm')(context), ...context.lines.filter(line => line.slot === 'guard')],
    needs: { a: ['diameterMm'], b: ['propMaxMm|ductMm'] },
    judge(prop, frame) {
      const across = mm(prop, 'diameterMm')
      const duct = measureOf(frame, 'ductMm')
      const room = duct ?? mm(frame, 'propMaxMm')
      const where = duct === undefined ? 'the frame takes at most' : 'the duct is'
      if (across > room + 1e-9)
        return {
          title: 'Props touch',
          sentence: `The prop is ${shown(across)} mm across, ${where} ${shown(room)} mm.`,
          ways: [way(`Props of at most ${shown(room)} mm`)],
        }
      const gap = (room - across) / 2
      if (duct !== undefined && gap < 0.4)
        return {
          severity: 'check',
          title: 'Little room in the duct',
          sentence: `${shown(gap)} mm between blade tip and duct: a bent duct will be heard.`,
        }
      return { fits: `props ${shown(across)} of ${shown(room)} mm` }
    },
  }),
  pairCheck({
    id: 'prop-mount',
    title: 'Props on the motors',
    severity: 'clash',
    a: ['propeller'],
    b: ['motor'],
    needs: { a: ['mount'], b: ['propMount'] },
    judge(prop, motor) {
      const [mine, theirs] = [textOf(prop, 'mount')!, textOf(motor, 'propMount')!]
      if (mine !== theirs)
        return {
          title: 'Props do not go on these motors',
          sentence: `The prop is ${mine}, the motor wants ${theirs}.`,
          ways: [way(`Props that are ${theirs}`)],
        }
      const [hole, shaft] = [measureOf(prop, 'shaftMm'), measureOf(motor, 'shaftMm')]
      if (hole !== undefined && shaft !== undefined && Math.abs(hole - shaft) > 0.11)
        return {
          title: 'Prop hole and shaft differ',
          sentence: `The hole is ${shown(hole)} mm, the shaft ${shown(shaft)} mm.`,
          ways: [way(`Props with a ${shown(shaft)} mm hole`)],
        }
      return { fits: `props ${mine}` }
    },
  }),
  pairCheck({
    id: 'board-pattern',
    title: 'Board holes',
    severity: 'clash',
    a: ['board', 'speed controller', 'power distribution', 'video transmitter'],
    b: seats('boardPatterns'),
    anyOf: true,
    needs: { a: ['pattern'], b: ['boardPatterns'] },
    judge(board, frame) {
      const [mine, theirs] = [listOf(board, 'pattern')!, listOf(frame, 'boardPatterns')!]
      const meeting = meetingPatterns(mine, theirs)
      if (!meeting)
        return {
          title: 'Board holes do not meet the frame',
          sentence: `${board.name} has ${mine.join(' or ')}, the frame offers ${theirs.join(' or ')}.`,
          ways: [way('An adapter plate', 1.2), way('A board with a pattern the frame has')],
        }
      if (meeting.mine.thread && meeting.theirs.thread && meeting.mine.thread !== meeting.theirs.thread)
        return {
          severity: 'check',
          title: 'Board screws and holes differ',
          sentence: `${board.name} takes ${meeting.mine.thread}, the frame is drilled for ${meeting.theirs.thread}.`,
          ways: [way('Grommets or sleeves that make up the difference', 0.2)],
        }
      if (meeting.turnDeg % 90 > 1 && meeting.turnDeg % 90 < 89)
        return {
          severity: 'advice',
          title: 'Board sits turned',
          sentence:
            `The holes meet when the board is turned by ${meeting.turnDeg}°: set the board’s orientation in ` +
            `the flight-controller firmware.`,
        }
      return { fits: `${board.slot} ${meeting.mine.text}` }
    },
  }),
  pairCheck({
    id: 'camera-width',
    title: 'Camera and its mount',
    severity: 'clash',
    a: ['camera'],
    b: ({ lines }) =>
      lines.filter(
        l =>
          l.slot === 'canopy' ||
          (l.slot === 'frame' &&
            (measureOf(l, 'cameraWidthMm') !== undefined || !lines.some(c => c.slot === 'canopy'))),
      ),
    anyOf: true,
    needs: { a: ['widthMm'], b: ['cameraWidthMm'] },
    judge(camera, mount) {
      const [wide, room] = [mm(camera, 'widthMm'), mm(mount, 'cameraWidthMm')]
      if (wide > room + 0.3)
        return {
          title: 'Camera too wide',
          sentence: `The camera is ${shown(wide)} mm wide, its place ${shown(room)} mm.`,
          ways: [way(`A camera of ${shown(room)} mm`), way('Another mount')],
        }
      if (wide < room - 1)
        return {
          severity: 'check',
          title: 'Camera sits loose',
          sentence: `The camera is ${shown(wide)} mm wide in a place of ${shown(room)} mm: it wants spacers or an adapter.`,
          ways: [way('Side spacers', 0.4)],
        }
      return { fits: `camera ${shown(wide)} mm` }
    },
  }),
  pairCheck({
    id: 'pack-tray',
    title: 'Pack and its place',
    severity: 'check',
    a: ['pack'],
    b: seats('trayLengthMm', 'trayWidthMm'),
    anyOf: true,
    needs: { a: ['lengthMm', 'widthMm'], b: ['trayLengthMm', 'trayWidthMm'] },
    judge(pack, frame) {
      const over = [
        mm(pack, 'lengthMm') - mm(frame, 'trayLengthMm'),
        mm(pack, 'widthMm') - mm(frame, 'trayWidthMm'),
      ] as const
      if (over[0] > 0 || over[1] > 0)
        return {
          title: 'Pack stands over its tray',
          sentence:
            `${packLabel(pack)} is ${mm(pack, 'lengthMm')} × ${mm(pack, 'widthMm')} mm, the tray ` +
            `${mm(frame, 'trayLengthMm')} × ${mm(frame, 'trayWidthMm')} mm. Look where it meets props and ` +
            `plugs.`,
        }
      return { fits: `pack ${mm(pack, 'lengthMm')} × ${mm(pack, 'widthMm')} mm` }
    },
  }),
]
