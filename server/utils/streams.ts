import type { H3Event } from 'h3'

/** A listener that has so much unread is let go; its page asks again by itself. */
const mostUnreadBytes = 256 * 1024
const aliveMs = 15_000

const opened = new Set<() => void>()

/** Ends every stream: their pages open them anew, and see what is there now. */
export function endStreams(): void {
  for (const end of opened) end()
}

/**
 * Opens a stream of server-sent events; `begin` gets a sender and returns what ends it when the other side goes away, stops
 * reading, or its session ends.
 */
export async function eventStream(
  event: H3Event,
  begin: (send: (name: string, data: unknown) => void) => () => void,
): Promise<void> {
  const { req, res } = event.node
  const { sessions } = await useApplication()
  setResponseHeaders(event, {
    'content-type': 'text/event-stream; charset=utf-8',
    'cache-control': 'no-store',
    'x-accel-buffering': 'no',
  })
  res.writeHead(200)
  res.flushHeaders()
  event._handled = true
  const end = () => {
    res.destroy()
  }
  function write(text: string) {
    if (res.destroyed || res.writableEnded) return
    if (res.writableLength > mostUnreadBytes) end()
    else res.write(text)
  }
  opened.add(end)
  const stop = begin((name, data) => write(`event: ${name}\ndata: ${JSON.stringify(data)}\n\n`))
  const alive = setInterval(() => write('event: alive\ndata:\n\n'), aliveMs)
  const id = event.context.sessionId as string | undefined
  const offSession = id ? sessions.whileOn(id, end) : () => {}
  await new Promise<void>(done => {
    res.once('close', done)
    req.once('close', done)
  })
  opened.delete(end)
  clearInterval(alive)
  offSession()
  stop()
}
