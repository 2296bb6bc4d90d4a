import { onKeyStroke } from '@vueuse/core'
import { actionOf, type Does } from '~/keys/registry'

const textFields = 'input, textarea, select, [contenteditable=true], [role=combobox]'
const ownSpaceBar = 'button:focus-visible, a:focus-visible, summary:focus-visible'
const openDialog = '.el-overlay:not([style*="display: none"])'

/**
 * What single keys do here. They act only when no field and no cell being edited has the focus, no dialog is open, and they
 * are switched on in the settings. A button reached by keyboard keeps its own space bar. `allowed` may narrow that further.
 */
export function useSingleKeys(
  actions: Partial<Readonly<Record<Does, (event: KeyboardEvent) => void>>>,
  allowed: () => boolean = () => true,
) {
  whenKeyIsFree(event => {
    const does = actionOf(event, Object.keys(actions) as Does[])
    return does ? () => actions[does]!(event) : null
  }, allowed)
}

/** Runs what a key asks for, where a single key may act at all. */
export function whenKeyIsFree(
  meant: (event: KeyboardEvent) => (() => void) | null,
  allowed: () => boolean = () => true,
) {
  const settings = useSettingsStore()
  onKeyStroke(event => {
    if (!settings.settings.singleKeys || event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented)
      return
    const action = meant(event)
    const target = event.target instanceof Element ? event.target : null
    if (!action || (event.key === ' ' && target?.matches(ownSpaceBar)) || target?.closest(textFields)) return
    if (document.querySelector(openDialog) || !allowed()) return
    event.preventDefault()
    action()
  })
}
