import { ElMessage, type MessageHandler, type MessageParamsWithType } from 'element-plus'

type Words = Exclude<MessageParamsWithType, string>

/**
 * A word to the cook that goes away again. It lies over words, never over what can be tapped: over the left of the
 * verdict on the bench, over the heading elsewhere and on a phone.
 */
export function say(words: MessageParamsWithType): MessageHandler {
  const options = typeof words === 'object' && words && 'message' in words ? (words as Words & object) : { message: words }
  const foot = document.querySelector('.work .verdict') && !matchMedia('(max-width: 700px)').matches
  return ElMessage({
    grouping: true,
    offset: 14,
    ...(options as object),
    placement: foot ? 'bottom-left' : 'top-left',
    customClass: foot ? 'at-foot' : 'at-head',
  })
}
