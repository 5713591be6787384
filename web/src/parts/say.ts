import { ElMessage, type MessageHandler, type MessageParamsWithType } from 'element-plus'

type Words = Exclude<MessageParamsWithType, string>

/**
 * A word to the cook that goes away again. It lies over words, never over what can be tapped: over the left of the
 * verdict on the bench, over the heading elsewhere; and a tap beside its own buttons goes through it.
 */
export function say(words: MessageParamsWithType): MessageHandler {
  const options = typeof words === 'object' && words && 'message' in words ? (words as Words & object) : { message: words }
  const verdict = document.querySelector('.work .verdict')
  const phone = matchMedia('(max-width: 700px)').matches
  const foot = !!verdict && !phone
  const offset = verdict && phone ? Math.max(14, verdict.getBoundingClientRect().top + 4) : 14
  return ElMessage({
    grouping: true,
    offset,
    ...(options as object),
    placement: foot ? 'bottom-left' : 'top-left',
    customClass: foot ? 'at-foot' : verdict ? 'at-verdict' : 'at-head',
  })
}
