/** The log of a flight as it was brought: text, compressed on its way. */
export default defineEventHandler(async event => {
  try {
    const log = await (await useApplication()).logs.read(idParameter(event, 'log'))
    setHeaders(event, {
      'content-type': 'application/gzip',
      'cache-control': 'private, max-age=31536000, immutable',
    })
    return log
  } catch (error) {
    return sendProblem(event, error)
  }
})
