export default fileRoute('text/csv; charset=utf-8', async (event, app) => {
  const id = idParameter(event)
  return { name: `${app.builds.read(id).build.name} parts.csv`, text: await app.files.partsList(id) }
})
