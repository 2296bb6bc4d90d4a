import { effectScope, nextTick, ref, shallowRef } from 'vue'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

interface Thing {
  id: string
  n: number
}
describe('what comes after the picture', () => {
  let frames: (() => void)[] = []
  let scope: ReturnType<typeof effectScope>
  beforeEach(() => {
    vi.useFakeTimers()
    frames = []
    vi.stubGlobal('requestAnimationFrame', (work: () => void) => frames.push(work))
    vi.stubGlobal('cancelAnimationFrame', (n: number) => {
      frames[n - 1] = () => undefined
    })
    scope = effectScope()
  })
  afterEach(() => {
    scope.stop()
    vi.useRealTimers()
    vi.unstubAllGlobals()
  })
  async function begin() {
    const { useAfterPaint } = await import('./useAfterPaint')
    const wanted = shallowRef<Thing | null>({ id: 'a', n: 1 })
    const { shown, late } = scope.run(() =>
      useAfterPaint(
        () => wanted.value,
        ({ id }: Thing) => id,
      ),
    )!
    return { wanted, shown, late }
  }
  const draw = () => {
    for (const work of frames.splice(0)) work()
    vi.advanceTimersByTime(1)
  }

  it('the same thing changes at once, another one when the picture is drawn', async () => {
    const { wanted, shown, late } = await begin()
    wanted.value = { id: 'a', n: 2 }
    await nextTick()
    expect([shown.value?.n, late.value]).toEqual([2, false])
    wanted.value = { id: 'b', n: 3 }
    await nextTick()
    expect([shown.value?.id, late.value]).toEqual(['a', true])
    draw()
    expect([shown.value?.id, late.value]).toEqual(['b', false])
  })

  it('nothing is shown at once, and what comes after nothing too', async () => {
    const { wanted, shown } = await begin()
    wanted.value = null
    await nextTick()
    expect(shown.value).toBeNull()
    wanted.value = { id: 'c', n: 1 }
    await nextTick()
    expect(shown.value?.id).toBe('c')
  })

  it('of several in one picture only the last comes', async () => {
    const { wanted, shown } = await begin()
    const seen = ref<string[]>([])
    for (const id of ['b', 'c', 'd']) {
      wanted.value = { id, n: 1 }
      await nextTick()
      seen.value.push(shown.value!.id)
    }
    draw()
    expect([...seen.value, shown.value!.id]).toEqual(['a', 'a', 'a', 'd'])
  })

  it('a page that draws no pictures shows it a moment later all the same', async () => {
    const { wanted, shown } = await begin()
    wanted.value = { id: 'b', n: 1 }
    await nextTick()
    vi.advanceTimersByTime(100)
    expect(shown.value?.id).toBe('b')
  })
})
