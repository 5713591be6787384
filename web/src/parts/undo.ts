import { ElButton, ElMessage } from 'element-plus'
import { h } from 'vue'

/** Says that something was put aside, with the button that brings it back. */
export function sayPutAside(text: string, bringBack: () => Promise<unknown>) {
  const message = ElMessage({
    duration: 10000,
    showClose: true,
    message: h('span', { class: 'undo-line' }, [
      `${text} `,
      h(
        ElButton,
        {
          onClick: () => {
            message.close()
            void bringBack()
          },
        },
        () => 'Bring it back',
      ),
    ]),
  })
}
