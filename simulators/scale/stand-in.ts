import { createServer as createHttp, type IncomingMessage } from 'node:http'
import { createServer as createTcp, type AddressInfo, type Socket } from 'node:net'
import { dialects, lineOf, Pan, pocketScale, type Dialect, type PanTraits } from './pan'

export interface StandInOptions {
  readonly scalePort: number
  readonly controlPort: number
  readonly traits?: PanTraits
  readonly readingsPerSecond?: number
  readonly dialect?: Dialect
}

async function bodyOf(request: IncomingMessage): Promise<Record<string, unknown>> {
  let text = ''
  for await (const chunk of request) {
    text += chunk
    if (text.length > 100_000) throw new Error('too long')
  }
  const data: unknown = text === '' ? {} : JSON.parse(text)
  if (typeof data !== 'object' || data === null) throw new Error('not an object')
  return data as Record<string, unknown>
}

function massesIn(body: Record<string, unknown>): { name: string; massG: number }[] {
  if (!Array.isArray(body.masses)) throw new Error('masses must be a list')
  return body.masses.map((mass: { name?: unknown; massG?: unknown }) => {
    const massG = Number(mass?.massG)
    if (!(massG >= 0 && massG <= 20_000)) throw new Error('massG must be from 0 to 20000')
    return { name: String(mass.name ?? ''), massG }
  })
}

/**
 * A bench scale that is not there: sends its display as lines over TCP on loopback, to one client at a time, takes `Z` as
 * its zero key, and has a control door over HTTP where masses are put on the pan (`PUT /pan`), its zero key pressed
 * (`POST /zero`), and its cable pulled and put back (`POST /unplug`, `POST /plug`).
 */
export async function startStandIn({
  scalePort,
  controlPort,
  traits = pocketScale,
  readingsPerSecond = 10,
  dialect: first = 'letters',
}: StandInOptions) {
  const pan = new Pan(traits)
  let dialect = first
  let masses: { name: string; massG: number }[] = []
  let client: Socket | null = null
  let plugged = true

  const scale = createTcp(socket => {
    if (client || !plugged) {
      if (plugged) socket.write('BUSY\r\n')
      return socket.destroy()
    }
    client = socket
    socket.on('data', chunk => {
      if (/Z|T/i.test(chunk.toString('latin1'))) pan.zero()
    })
    socket.on('error', () => socket.destroy())
    socket.on('close', () => {
      if (client === socket) client = null
    })
  })
  const periodS = 1 / readingsPerSecond
  const ticker = setInterval(() => {
    const display = pan.after(periodS)
    if (client?.writable && client.writableLength < 4096) client.write(`${lineOf(display, dialect)}\r\n`)
  }, periodS * 1000)

  const control = createHttp(async (request, answer) => {
    const reply = (status: number, data: unknown) =>
      answer.writeHead(status, { 'content-type': 'application/json' }).end(JSON.stringify(data))
    try {
      const body = await bodyOf(request)
      switch (`${request.method} ${request.url}`) {
        case 'PUT /pan': {
          const next = massesIn(body)
          if (body.dialect !== undefined && !dialects.includes(body.dialect as Dialect))
            throw new Error(`dialect must be one of ${dialects.join(', ')}`)
          masses = next
          dialect = (body.dialect as Dialect) ?? dialect
          pan.put(masses.map(m => m.massG))
          break
        }
        case 'POST /zero':
          pan.zero()
          break
        case 'POST /unplug':
          plugged = false
          client?.destroy()
          break
        case 'POST /plug':
          plugged = true
          break
        case 'PUT /temperature':
          pan.temperatureC = Number(body.celsius) || 20
          break
        case 'GET /':
          break
        default:
          return reply(404, { problem: 'There is no such control.' })
      }
      reply(200, { masses, dialect, plugged })
    } catch (error) {
      reply(400, { problem: String(error) })
    }
  })
  const listening = (
    server: { listen: (port: number, host: string, done: () => void) => unknown; address: () => unknown },
    port: number,
  ) =>
    new Promise<number>(done => {
      server.listen(port, '127.0.0.1', () => done((server.address() as AddressInfo).port))
    })
  return {
    scalePort: await listening(scale, scalePort),
    controlPort: await listening(control, controlPort),
    async stop() {
      clearInterval(ticker)
      client?.destroy()
      await Promise.all([scale, control].map(server => new Promise(done => server.close(done))))
    },
  }
}
