/** The sample build somebody looks round in: which one it is, in this browser. */
export function useSample() {
  const sampleId = useLocalStorage('sample-build', '')
  const shelf = useShelfStore()

  async function open(): Promise<void> {
    const { default: text } = (await import('~~/demo/builds/marzipan.build.json?raw')) as { default: string }
    sampleId.value = await shelf.bringIn(text)
    await navigateTo(`/builds/${sampleId.value}/parts`)
  }
  /** Deletes the sample for good; nothing else is touched. */
  async function throwAway(): Promise<void> {
    const id = sampleId.value
    await shelf.putAway(id, true)
    await shelf.remove(id)
    // Only once it is gone: where the server does not answer, the sample is still one and can be thrown away again.
    sampleId.value = ''
    await navigateTo('/')
    void tell('The sample is thrown away.')
  }
  return { sampleId, open, throwAway }
}
