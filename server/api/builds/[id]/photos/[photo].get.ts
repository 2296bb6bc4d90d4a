export default defineEventHandler(async event => {
  try {
    const photo = await (await useApplication()).photos.read(idParameter(event), idParameter(event, 'photo'))
    setHeaders(event, { 'content-type': 'image/jpeg', 'cache-control': 'private, max-age=31536000, immutable' })
    return photo
  } catch (error) {
    return sendProblem(event, error)
  }
})
