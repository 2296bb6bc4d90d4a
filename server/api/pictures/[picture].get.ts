export default defineEventHandler(async event => {
  try {
    const picture = await (await useApplication()).pictures.read(idParameter(event, 'picture'))
    setHeaders(event, { 'content-type': 'image/jpeg', 'cache-control': 'private, max-age=31536000, immutable' })
    return picture
  } catch (error) {
    return sendProblem(event, error)
  }
})
