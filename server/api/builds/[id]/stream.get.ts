/** Tells of every change of a build, with its new revision, so that another window can follow. */
export default defineEventHandler(async event => {
  const app = await useApplication()
  try {
    const id = idParameter(event)
    const { revision } = app.builds.read(id)
    return await eventStream(event, send => {
      send('revision', { revision })
      return app.builds.follow(
        id,
        changed => send('revision', { revision: changed }),
        () => send('deleted', {}),
      )
    })
  } catch (error) {
    return sendProblem(event, error)
  }
})
