/** What the bench scale sends, as it comes: `state` and `readings` events. */
export default defineEventHandler(async event => {
  const app = await useApplication()
  return eventStream(event, send =>
    app.benchScale.listen({ state: state => send('state', state), readings: readings => send('readings', readings) }),
  )
})
