export default fileRoute('text/markdown; charset=utf-8', (event, app) => {
  const id = idParameter(event)
  return { name: `${app.builds.read(id).build.name}.md`, text: app.files.sheet(id) }
})
