/**
 * Gives a field the focus as soon as a dialog traps it, so that typing can begin at once. The trap takes the focus for
 * itself one tick after it says it is there; the field takes it a tick later.
 */
export function useDialogFocus(field: Readonly<Ref<{ readonly focus: () => void } | null>>) {
  return async () => {
    await nextTick()
    await nextTick()
    field.value?.focus()
  }
}
