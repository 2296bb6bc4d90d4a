export default fileRoute('text/markdown; charset=utf-8', async (event, app) => {
  const id = idParameter(event)
  return { name: `${app.builds.read(id).build.name}.md`, text: await app.files.sheet(id, seqAsked(event)) }
})
