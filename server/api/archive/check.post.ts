import { randomUUID } from 'node:crypto'
import { createWriteStream } from 'node:fs'
import { rm } from 'node:fs/promises'
import { join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import { checkedReplySchema } from '../../../shared/schemas/archive'

/** Takes an archive in, checks it whole and lays it ready. */
export default jsonRoute(checkedReplySchema, async (event, app) => {
  requireAtTheMachine(event, 'Restoring')
  const path = join(app.archive.folder, `archive-${randomUUID()}.zip`)
  try {
    await pipeline(event.node.req, createWriteStream(path, { mode: 0o600 }))
    return await app.archive.check(path)
  } finally {
    await rm(path, { force: true })
  }
})
