/** Tells of every change of a build, with its new revision, and of its flights, so that another window can follow. */
export default defineEventHandler(async event => {
  const app = await useApplication()
  try {
    const id = idParameter(event)
    const { revision } = app.builds.read(id)
    return await eventStream(event, send => {
      send('revision', { revision })
      const off = [
        app.builds.follow(
          id,
          changed => send('revision', { revision: changed }),
          () => send('deleted', {}),
        ),
        app.flights.follow(id, version => send('flights', { version })),
      ]
      return () => {
        for (const stop of off) stop()
      }
    })
  } catch (error) {
    return sendProblem(event, error)
  }
})
