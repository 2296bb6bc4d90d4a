import type { NitroErrorHandler } from 'nitropack/types'

const sentences: Readonly<Record<number, string>> = {
  400: 'This address cannot be read.',
  404: 'There is nothing at this address.',
  405: 'This cannot be done at this address.',
  413: 'This is larger than anything the application takes in. Nothing was kept.',
}

/** What goes wrong outside the routes is said in the same form as every problem. */
const sayProblem: NitroErrorHandler = (error, event) => {
  const status = sentences[error.statusCode]
    ? error.statusCode
    : error.statusCode >= 400 && error.statusCode < 500
      ? error.statusCode
      : 500
  if (status >= 500) console.error(error)
  const detail =
    sentences[status] ??
    (status < 500
      ? 'The request cannot be understood.'
      : 'The server could not do this and changed nothing. Its console says more.')
  const { res } = event.node
  if (res.headersSent) {
    res.end()
    return
  }
  res.statusCode = status
  res.setHeader('content-type', 'application/problem+json')
  res.end(
    JSON.stringify({
      type: 'about:blank',
      title: 'unexpected',
      status,
      code: status === 404 ? 'not-found' : 'unexpected',
      detail,
    }),
  )
}
export default sayProblem
