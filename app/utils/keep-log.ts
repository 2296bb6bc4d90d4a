/** A log as it is kept: compressed in the browser. */
async function packed(log: Blob): Promise<File> {
  const stream = log.stream().pipeThrough(new CompressionStream('gzip'))
  return new File([await new Response(stream).blob()], 'log.csv.gz', { type: 'application/gzip' })
}

/** The text of a log that was kept. */
export async function unpacked(log: Blob): Promise<Blob> {
  return new Response(log.stream().pipeThrough(new DecompressionStream('gzip'))).blob()
}

/** Keeps a log beside the database; resolves with its id. Throws with a sentence. */
export async function keepLog(log: Blob): Promise<string> {
  const { id } = await askServer<{ id: string }>('/api/logs', {
    method: 'POST',
    file: await packed(log),
    timeoutMs: 120_000,
  })
  return id
}
