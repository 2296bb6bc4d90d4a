<script setup lang="ts">
import type { DropdownInstance } from 'element-plus'

/** One thing a row offers on the secondary button, the menu key or a long press. */
export interface RowAction {
  readonly words: string
  readonly act: () => unknown
  /** The key that does the same without the menu. */
  readonly key?: string
  /** Begins a group of its own. */
  readonly apart?: boolean
  readonly disabled?: boolean
}

const props = defineProps<{ label: string }>()
const menu = useTemplateRef<DropdownInstance>('menu')
const actions = shallowRef<readonly RowAction[]>([])
const place = shallowRef({ getBoundingClientRect: () => new DOMRect() })
let from: HTMLElement | null = null

/** Opens where the pointer is, or at what has the focus where the menu key was pressed. */
async function open(event: MouseEvent, offered: readonly RowAction[]) {
  event.preventDefault()
  from = document.activeElement instanceof HTMLElement ? document.activeElement : null
  const target = event.target as Element
  const byKey = event.detail === 0 && event.button !== 2
  const at = byKey ? target.getBoundingClientRect() : new DOMRect(event.clientX, event.clientY, 0, 0)
  menu.value?.handleClose()
  actions.value = offered
  place.value = { getBoundingClientRect: () => at }
  await nextTick()
  menu.value?.handleOpen()
}
const items = useTemplateRef<{ $el: HTMLElement }>('items')
async function shown(isOpen: boolean) {
  if (isOpen) {
    await nextTick()
    await nextTick()
    // Without a trigger of its own the library names the menu by an element that is not there.
    const list = items.value?.$el
    list?.removeAttribute('aria-labelledby')
    list?.setAttribute('aria-label', props.label)
    let current = list?.querySelector<HTMLElement>('[role=menuitem]:not([aria-disabled=true])')
    // Once it is shown, the library gives the focus to the list as a whole: it goes to where the keys have come meanwhile.
    list?.addEventListener('focusin', ({ target }) => {
      if (target === list) current?.focus()
      else if (target instanceof HTMLElement) current = target
    })
    current?.focus()
  } else if (from?.isConnected) from.focus({ preventScroll: true })
}
async function go(action: RowAction) {
  await nextTick()
  action.act()
}
defineExpose({ open })
</script>

<template>
  <el-dropdown
    ref="menu"
    trigger="contextmenu"
    placement="bottom-start"
    popper-class="row-menu"
    :show-arrow="false"
    :persistent="false"
    :virtual-ref="place"
    virtual-triggering
    @visible-change="shown"
    @command="go"
  >
    <span hidden />
    <template #dropdown>
      <el-dropdown-menu ref="items">
        <el-dropdown-item
          v-for="action in actions"
          :key="action.words"
          :command="action"
          :divided="action.apart"
          :disabled="action.disabled"
        >
          {{ action.words }}<kbd v-if="action.key">{{ action.key }}</kbd>
        </el-dropdown-item>
      </el-dropdown-menu>
    </template>
  </el-dropdown>
</template>
