import type { H3Event } from 'h3'

/** Opens a stream of server-sent events; `begin` gets a sender and returns what ends it when the other side goes away. */
export function eventStream(event: H3Event, begin: (send: (name: string, data: unknown) => void) => () => void) {
  const stream = createEventStream(event)
  const stop = begin((name, data) => { void stream.push({ event: name, data: JSON.stringify(data) }) })
  const alive = setInterval(() => { void stream.push({ event: 'alive', data: '' }) }, 15_000)
  stream.onClosed(async () => {
    clearInterval(alive)
    stop()
    await stream.close()
  })
  return stream.send()
}
