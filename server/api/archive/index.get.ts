import { PassThrough } from 'node:stream'
import { localDay } from '../../../shared/utils/local-day'

/** Everything in one file, made while it is sent. */
export default defineEventHandler(async event => {
  try {
    const app = await useApplication()
    const name = `jolly-gram-${localDay()}.zip`
    setHeaders(event, {
      'content-type': 'application/zip',
      'content-disposition': `attachment; filename="${name}"`,
      'cache-control': 'no-store',
    })
    const out = new PassThrough()
    event.node.res.once('close', () => out.destroy())
    // What breaks off is not taken for whole: neither by the browser, nor by its sum.
    app.archive.write(out).catch((error: Error) => out.destroy(error))
    return await sendStream(event, out)
  } catch (error) {
    return sendProblem(event, error)
  }
})
