import { circleWords, inOrder } from '../../core/making/assembly'
import type { AssemblyStep, AssemblyTemplate } from '../../core/model/data'
import type { templatesRepository } from '../db/templates-repository'
import { DomainProblem } from '../problems'

const mostTemplates = 50

/** The use cases of templates: a way of building that can be taken up by any build. */
export function templateService(repository: ReturnType<typeof templatesRepository>) {
  return {
    all: () => repository.all(),
    /** Refused where its own steps wait for each other in a circle. */
    put(template: AssemblyTemplate) {
      const steps = template.own.map((own): AssemblyStep => ({
        ...own,
        why: own.words,
        need: [],
        parts: [],
        uses: [],
        facts: [],
        cautions: [],
        test: null,
        proves: [],
        over: [],
        own: true,
      }))
      const sorted = inOrder(steps, '', template.order)
      if ('cycle' in sorted) throw new DomainProblem('refused', circleWords(sorted.cycle), 'own')
      const known = repository.all()
      if (known.length >= mostTemplates && !known.some(other => other.id === template.id))
        throw new DomainProblem('refused', `At most ${mostTemplates} templates are kept.`)
      repository.put(template)
    },
    remove(id: string) {
      if (!repository.remove(id)) throw new DomainProblem('not-found', 'There is no such template.')
    },
  }
}
export type TemplateService = ReturnType<typeof templateService>
