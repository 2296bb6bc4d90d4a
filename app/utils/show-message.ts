import { ElButton, ElMessage } from 'element-plus'
import 'element-plus/theme-chalk/el-message.css'
import { h } from 'vue'

/** What can be done about what was told, as a button beside it. */
export interface TellAction {
  readonly words: string
  readonly act: () => unknown
}

/** Long enough to read and to reach for the button. */
const shownMs = { plain: 3500, withAction: 8000 }
/** Above the bar of stations that a phone has at the bottom. */
const bottomGap = { phone: 108, desk: 20 }

export function showMessage(words: string, action?: TellAction): () => void {
  const isPhone = matchMedia('(max-width: 760px)').matches
  const shown = ElMessage({
    message: action
      ? h('span', { class: 'told' }, [
          words,
          h(
            ElButton,
            {
              link: true,
              onClick: () => {
                shown.close()
                action.act()
              },
            },
            () => action.words,
          ),
        ])
      : words,
    plain: true,
    duration: action ? shownMs.withAction : shownMs.plain,
    placement: 'bottom',
    offset: isPhone ? bottomGap.phone : bottomGap.desk,
    grouping: !action,
    customClass: 'told-message',
  })
  return () => shown.close()
}
