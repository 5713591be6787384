import { ElButton } from 'element-plus'
import { say } from './say'
import { offerBack } from './takeBack'
import { h } from 'vue'

/** A message with one button in it; what takes something back is reached by Ctrl+Z as well. */
export function sayWithButton(text: string, label: string, act: () => unknown, takesBack = false) {
  const take = () => {
    end?.()
    message.close()
    void act()
  }
  const end = takesBack ? offerBack(take) : undefined
  const message = say({
    duration: 10000,
    showClose: true,
    onClose: end,
    message: h('span', { class: 'undo-line' }, [`${text} `, h(ElButton, { onClick: take }, () => label)]),
  })
}

/** Says that something was put aside, with the button that brings it back. */
export const sayPutAside = (text: string, bringBack: () => Promise<unknown>) => sayWithButton(text, 'Bring it back', bringBack, true)

/** Says what was done, with the button that takes it back. */
export const offerUndo = (text: string, back: () => unknown) => sayWithButton(text, 'Undo', back, true)
