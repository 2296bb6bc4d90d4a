import { onKeyStroke } from '@vueuse/core'
import { actionOf, type Does } from '~/keys/registry'

/** Where letters are typed. A tick or one choice of several takes none: single keys go on after it. */
const textFields = 'input:not([type=checkbox], [type=radio]), textarea, select, [contenteditable=true], [role=combobox]'
const ownSpaceBar =
  'button:focus-visible, a:focus-visible, summary:focus-visible, input[type=checkbox], input[type=radio]'
const ownArrows = 'input[type=radio]'
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
  onKeyStroke(event => {
    const does = everywhere(event)
    const act = does ? actions[does] : undefined
    if (!act || event.defaultPrevented || !isFree(event, allowed)) return
    event.preventDefault()
    act(event)
  })
}

/** What people press in every application: it does so here too, also where single keys are off. */
function everywhere({ key, ctrlKey, metaKey, altKey, shiftKey }: KeyboardEvent): 'undo' | 'redo' | null {
  if (ctrlKey === metaKey || altKey) return null
  if (key.toLowerCase() === 'z') return shiftKey ? 'redo' : 'undo'
  return key === 'y' ? 'redo' : null
}

/** Whether no field has the focus that takes the key itself, and no dialog is open. */
function isFree(event: KeyboardEvent, allowed: () => boolean): boolean {
  const target = event.target instanceof Element ? event.target : null
  if (target?.closest(textFields) || keepsForItself(target, event.key)) return false
  return !document.querySelector(openDialog) && allowed()
}

/** Whether a control that has the focus does something of its own at this key. */
function keepsForItself(target: Element | null, key: string): boolean {
  if (key === ' ') return target?.matches(ownSpaceBar) === true
  return key.startsWith('Arrow') && target?.matches(ownArrows) === true
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
    if (!action || !isFree(event, allowed)) return
    event.preventDefault()
    action()
  })
}
