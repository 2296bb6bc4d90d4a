import { assemblyTemplateSchema } from '../../core/slices/assembly'
import type { AssemblyTemplate } from '../../core/model/data'
import type { Db } from './open-database'

/** SQL of the ways of building a builder keeps. */
export function templatesRepository(db: Db) {
  const select = db.prepare('SELECT value FROM assembly_templates ORDER BY name, id').pluck()
  const put = db.prepare(
    'INSERT INTO assembly_templates (id, name, value) VALUES (:id, :name, :value) ON CONFLICT (id) DO ' +
      'UPDATE SET name = excluded.name, value = excluded.value',
  )
  const remove = db.prepare('DELETE FROM assembly_templates WHERE id = ?')
  return {
    all: (): AssemblyTemplate[] =>
      (select.all() as string[]).map(text => assemblyTemplateSchema.parse(JSON.parse(text))),
    put: (template: AssemblyTemplate) => {
      put.run({ id: template.id, name: template.name, value: JSON.stringify(template) })
    },
    remove: (id: string): boolean => remove.run(id).changes > 0,
  }
}
