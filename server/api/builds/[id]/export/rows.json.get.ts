export default fileRoute('application/json; charset=utf-8', (event, app) => {
  const id = idParameter(event)
  return { name: `${id} as it lies.json`, text: app.files.raw(id) }
})
