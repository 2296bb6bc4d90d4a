export default fileRoute('text/csv; charset=utf-8', (event, app) => {
  const id = idParameter(event)
  return { name: `${app.builds.read(id).build.name} parts.csv`, text: app.files.partsList(id) }
})
