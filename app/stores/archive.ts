import { defineStore } from 'pinia'
import type { CheckedReply, CopiesReply } from '#shared/schemas/archive'

/** Everything is read once and written once: that may take long. */
const longMs = 3_600_000

/** Copies of everything, and an archive that shall take the place of what is here. */
export const useArchiveStore = defineStore('archive', () => {
  const kept = shallowRef<CopiesReply | null>(null)
  const checked = shallowRef<CheckedReply | null>(null)

  async function load() {
    kept.value = await askServer<CopiesReply>('/api/archive/copies')
  }
  async function makeCopy() {
    await askServer('/api/archive/copies', { method: 'POST', body: {}, timeoutMs: longMs })
    await load()
  }
  async function checkCopy(name: string) {
    checked.value = null
    const path = `/api/archive/copies/${encodeURIComponent(name)}/check`
    checked.value = await askServer<CheckedReply>(path, { method: 'POST', body: {}, timeoutMs: longMs })
  }
  async function checkFile(file: File) {
    checked.value = null
    checked.value = await askServer<CheckedReply>('/api/archive/check', { method: 'POST', file, timeoutMs: longMs })
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
  return { kept, checked, load, makeCopy, checkCopy, checkFile, restore, letGo }
})
