import { defineStore } from 'pinia'
import type { AssemblyTemplate } from '#core/assembly'

/** The most a photo may have, bytes; the server refuses more as well. */
const mostPhotoBytes = 16_000_000

/** What assembling keeps outside the build: templates, and photos as files. */
export const useAssemblyStore = defineStore('assembly', () => {
  const templates = shallowRef<readonly AssemblyTemplate[]>([])

  async function load() { templates.value = await askServer<AssemblyTemplate[]>('/api/templates') }
  async function putTemplate(template: AssemblyTemplate) { templates.value = await askServer<AssemblyTemplate[]>(`/api/templates/${template.id}`, { method: 'PUT', body: template }) }
  async function removeTemplate(id: string) { templates.value = await askServer<AssemblyTemplate[]>(`/api/templates/${id}`, { method: 'DELETE' }) }

  /** Sends a photo; its id comes back when it lies on the disk. */
  async function keepPhoto(buildId: string, photo: File): Promise<string> {
    if (photo.size > mostPhotoBytes) throw new Error('A photo has at most 16 MB. Nothing was kept.')
    return (await askServer<{ id: string }>(`/api/builds/${buildId}/photos`, { method: 'POST', file: photo })).id
  }
  const photoPath = (buildId: string, id: string) => `/api/builds/${buildId}/photos/${id}`

  return { templates, load, putTemplate, removeTemplate, keepPhoto, photoPath }
})
