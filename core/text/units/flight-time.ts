import { splitEnding } from './endings'
import { isNotRead, readNumber, type NotRead } from './read-number'

/** A time in the air as somebody said it: seconds, and the step of its last digit, seconds. */
export interface FlightTime {
  readonly seconds: number
  readonly stepS: number
}

/** `3:20`, `3 min 20`, `3m20s`: blanks are single ones by then. */
const clock = /^(\d{1,3}) ?(?::|min|m|′|') ?(\d{1,2})(?: ?(?:s|sec|″|"))?$/i

/**
 * Reads a time in the air as people say it: `3:20` and `3 min 20`, `3.2` and `3,2` minutes, `200 s`. A bare number is
 * minutes. Nothing, zero, and more than `mostMinutes` are refused with a sentence.
 */
export function readFlightTime(text: string, mostMinutes: number): FlightTime | NotRead {
  const said = text.trim().replace(/\s+/g, ' ')
  if (said === '') return { problem: 'Say how long it flew: 3:20, 3.2 or 200 s.' }
  const time = parts(said)
  if (isNotRead(time)) return time
  if (!(time.seconds >= 1)) return { problem: 'A flight lasts at least a second: type 3:20, 3.2 or 200 s.' }
  if (time.seconds > mostMinutes * 60)
    return { problem: `${said} is more than ${mostMinutes} minutes. A bare number is minutes: type 200 s for seconds.` }
  return time
}

function parts(said: string): FlightTime | NotRead {
  const onClock = clock.exec(said)
  if (onClock) {
    const seconds = Number(onClock[2])
    if (seconds > 59) return { problem: `“${said}” has more than 59 seconds behind the minutes.` }
    return { seconds: 60 * Number(onClock[1]) + seconds, stepS: 1 }
  }
  const { body, ending } = splitEnding(said, ['s', 'sec', 'seconds', 'm', 'min', 'minutes'])
  const number = readNumber(body)
  if (isNotRead(number)) return { problem: `“${said}” is no time in the air. Type 3:20, 3.2 or 200 s.` }
  const unit = ending?.startsWith('s') ? 1 : 60
  return { seconds: number.value * unit, stepS: number.step * unit }
}

/** A time in the air as minutes and seconds: `3:20`. */
export function flightTimeWords(seconds: number): string {
  const whole = Math.round(seconds)
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`
}
