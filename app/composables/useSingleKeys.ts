import { onKeyStroke } from '@vueuse/core'

const textFields = 'input, textarea, select, [contenteditable=true], [role=combobox]'

/**
 * Single-key shortcuts. They act only when no field and no cell being edited has the focus, no dialog is open, and they
 * are switched on in the settings. A button reached by keyboard keeps its own space bar. `allowed` may narrow that further.
 */
export function useSingleKeys(
  keys: Record<string, (event: KeyboardEvent) => void>,
  allowed: () => boolean = () => true,
) {
  const settings = useSettingsStore()
  onKeyStroke(event => {
    const action = keys[event.key]
    if (
      !action ||
      !settings.settings.singleKeys ||
      event.ctrlKey ||
      event.metaKey ||
      event.altKey ||
      event.defaultPrevented
    )
      return
    const target = event.target instanceof Element ? event.target : null
    if (event.key === ' ' && target?.matches('button:focus-visible, a:focus-visible, summary:focus-visible')) return
    if (
      target?.closest(textFields) ||
      document.querySelector('.el-overlay:not([style*="display: none"])') ||
      !allowed()
    )
      return
    event.preventDefault()
    action(event)
  })
}
