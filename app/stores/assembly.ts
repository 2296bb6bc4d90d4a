import { defineStore } from 'pinia'
import type { AssemblyTemplate } from '#core/making/assembly'
import type { KeptChange } from '#shared/schemas/kept'
import { keptChangeBetween, overlaid, removalOf } from '../queue/overlay'

/** What assembling keeps outside the build: templates, and photos as files. */
export const useAssemblyStore = defineStore('assembly', () => {
  const templates = shallowRef<readonly AssemblyTemplate[]>([])

  let written: readonly AssemblyTemplate[] = []
  function show() {
    const waiting = listening ? useEditsStore().queue.pending('templates') : []
    templates.value = [...overlaid(written, 'template', waiting)].sort((a, b) => a.name.localeCompare(b.name))
  }
  let listening = false
  function listen() {
    if (listening) return
    listening = true
    useEditsStore().listen({
      accepted(document, sent) {
        if (document === 'templates') written = overlaid(written, 'template', sent)
      },
      changed(document) {
        if (document === 'templates') show()
      },
    })
  }
  async function load() {
    written = await askServer<AssemblyTemplate[]>('/api/templates')
    show()
  }
  async function keep(change: KeptChange | null, words: string) {
    listen()
    const refused = await useEditsStore().keep('templates', 'Templates', [change], words)
    if (refused) throw new Error(refused)
  }
  const putTemplate = (template: AssemblyTemplate) =>
    keep(
      keptChangeBetween('template', templates.value.find(t => t.id === template.id) ?? null, template),
      `Template ${template.name}`,
    )
  async function removeTemplate(id: string) {
    const template = templates.value.find(t => t.id === id)
    if (template) await keep(removalOf('template', template), `Template ${template.name} deleted`)
  }

  const keepPhoto = (buildId: string, photo: File, signal: AbortSignal) =>
    keepPicture(`/api/builds/${buildId}/photos`, photo, signal)
  const photoPath = (buildId: string, id: string) => `/api/builds/${buildId}/photos/${id}`

  return { templates, load, putTemplate, removeTemplate, keepPhoto, photoPath }
})
