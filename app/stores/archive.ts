import { defineStore } from 'pinia'
import type { CheckedReply, CopiesReply, UnnamedReply } from '#shared/schemas/archive'

/** Everything is read once and written once: that may take long. */
const longMs = 3_600_000

/** Copies of everything, and an archive that shall take the place of what is here. */
export const useArchiveStore = defineStore('archive', () => {
  const kept = shallowRef<CopiesReply | null>(null)
  /** What nothing names any more; null while nobody has looked. */
  const unnamed = shallowRef<UnnamedReply | null>(null)
  const checked = shallowRef<CheckedReply | null>(null)

  async function load() {
    kept.value = await askServer<CopiesReply>('/api/archive/copies')
  }
  async function lookForUnnamed() {
    unnamed.value = await askServer<UnnamedReply>('/api/archive/unnamed', { timeoutMs: longMs })
  }
  async function clearUnnamed() {
    await askServer('/api/archive/unnamed', { method: 'DELETE', timeoutMs: longMs })
    await lookForUnnamed()
  }
  async function makeCopy() {
    await askServer('/api/archive/copies', { method: 'POST', body: {}, timeoutMs: longMs })
    await load()
  }
  async function checkCopy(name: string, signal: AbortSignal) {
    checked.value = null
    const path = `/api/archive/copies/${encodeURIComponent(name)}/check`
    checked.value = await askServer<CheckedReply>(path, { method: 'POST', body: {}, timeoutMs: longMs, signal })
  }
  async function checkFile(file: File, signal: AbortSignal) {
    checked.value = null
    const asked = { method: 'POST', file, timeoutMs: longMs, signal }
    checked.value = await askServer<CheckedReply>('/api/archive/check', asked)
  }
  /** The page is opened anew by the answer: it is of other data. */
  const restore = () =>
    askServer<{ keptAs: string }>('/api/archive/restore', {
      method: 'POST',
      body: { id: checked.value!.id },
      timeoutMs: longMs,
    })
  function letGo() {
    checked.value = null
  }
  return { kept, checked, unnamed, load, lookForUnnamed, clearUnnamed, makeCopy, checkCopy, checkFile, restore, letGo }
})
