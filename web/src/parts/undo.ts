import { ElButton } from 'element-plus'
import { say } from './say'
import { h } from 'vue'

/** A message with one button in it. */
export function sayWithButton(text: string, label: string, act: () => unknown) {
  const message = say({
    duration: 10000,
    showClose: true,
    message: h('span', { class: 'undo-line' }, [
      `${text} `,
      h(
        ElButton,
        {
          onClick: () => {
            message.close()
            void act()
          },
        },
        () => label,
      ),
    ]),
  })
}

/** Says that something was put aside, with the button that brings it back. */
export const sayPutAside = (text: string, bringBack: () => Promise<unknown>) => sayWithButton(text, 'Bring it back', bringBack)

/** Says what was done, with the button that takes it back. */
export const offerUndo = (text: string, back: () => unknown) => sayWithButton(text, 'Undo', back)
