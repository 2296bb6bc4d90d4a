/** The build file; places of flights and texts of configurations are in it only where that is asked for, `?private=1`. */
export default fileRoute('application/json; charset=utf-8', (event, app) => {
  const id = idParameter(event)
  return {
    name: `${app.builds.read(id).build.name}.build.json`,
    text: app.files.exportLines(id, getQuery(event).private === '1'),
  }
})
