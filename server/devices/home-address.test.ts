import { createServer, type Socket } from 'node:net'
import { describe, expect, it } from 'vitest'
import type { BenchState } from '../../shared/schemas/bench-scale'
import { benchScale } from './bench-scale'
import { homeAddressOf, isHomeAddress } from './home-address'

describe('what the scale may be', () => {
  it.each([
    '127.0.0.1',
    '10.1.2.3',
    '172.16.0.1',
    '172.31.255.254',
    '192.168.0.9',
    '169.254.7.7',
    '::1',
    'fd00::9',
    'fe80::1',
    '::ffff:192.168.1.1',
  ])('%s lies at home', address => expect(isHomeAddress(address)).toBe(true))
  it.each([
    '8.8.8.8',
    '172.32.0.1',
    '192.169.0.1',
    '11.0.0.1',
    '2001:db8::1',
    '0.0.0.0',
    '::ffff:8.8.8.8',
    'not an address',
    '',
  ])('%s does not', address => expect(isHomeAddress(address)).toBe(false))
  it('a name is as good as every address it stands for', async () => {
    expect(isHomeAddress((await homeAddressOf('localhost')) ?? '')).toBe(true)
    expect(await homeAddressOf('203.0.113.7')).toBeNull()
    expect(await homeAddressOf('no-such-name.invalid')).toBeNull()
  })
  it('one out in the world is not called, and this is said', async () => {
    const bench = benchScale(() => '203.0.113.7:9')
    const state = await new Promise<BenchState>(done => {
      bench.listen({
        state: now => {
          if (now.state === 'gone') done(now)
        },
        readings: () => undefined,
      })
    })
    expect(state.sentence).toContain('not an address in the network at home')
    bench.close()
  })
  it('what sends only nonsense is not said to be connected; the first reading is', async () => {
    const peers: Socket[] = []
    const server = createServer(peer => {
      peers.push(peer)
      peer.on('error', () => undefined)
      peer.write('\u0007\u0012 x\r\n'.repeat(8))
    })
    await new Promise<void>(done => server.listen(0, '127.0.0.1', done))
    const { port } = server.address() as { port: number }
    const bench = benchScale(() => `127.0.0.1:${port}`)
    const states: BenchState[] = []
    bench.listen({ state: state => states.push(state), readings: () => undefined })
    await expect.poll(() => states.at(-1)?.state).toBe('not understood')
    expect(states.at(-1)!.sentence).toMatch(/rate.*dialect/)
    expect(states.map(state => state.state)).not.toContain('connected')
    peers[0]!.write('S S 17.02 g\r\n')
    await expect.poll(() => states.at(-1)?.state).toBe('connected')
    bench.close()
    for (const peer of peers) peer.destroy()
    server.close()
  })
})
