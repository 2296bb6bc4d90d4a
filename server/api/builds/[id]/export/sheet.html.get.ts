/** The build sheet as one page by itself. */
export default fileRoute('text/html; charset=utf-8', async (event, app) => {
  const id = idParameter(event)
  return { name: `${app.builds.read(id).build.name}.html`, text: await app.files.page(id, seqAsked(event)) }
})
