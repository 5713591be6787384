import { effectScope } from 'vue'
import { beforeAll, expect, it, vi } from 'vitest'
import { nothingBack, offerBack, useTakeBack } from './takeBack'

const press = (on: EventTarget = document.body, more: KeyboardEventInit = {}) => {
  const e = new KeyboardEvent('keydown', { key: 'z', ctrlKey: true, bubbles: true, cancelable: true, ...more })
  on.dispatchEvent(e)
  return e.defaultPrevented
}
beforeAll(() => effectScope().run(() => useTakeBack()))

it('takes back the last, and each once', () => {
  const [first, last] = [vi.fn(), vi.fn()]
  offerBack(first)
  offerBack(last)
  expect(press()).toBe(true)
  expect([first.mock.calls.length, last.mock.calls.length]).toEqual([0, 1])
  press()
  expect(press()).toBe(false)
  expect([first.mock.calls.length, last.mock.calls.length]).toEqual([1, 1])
})

it('leaves the key to a text, to redo, and to what was changed since', () => {
  const take = vi.fn()
  const end = offerBack(take)
  const field = document.body.appendChild(document.createElement('textarea'))
  expect(press(field)).toBe(false)
  expect(press(document.body, { shiftKey: true })).toBe(false)
  nothingBack()
  expect(press()).toBe(false)
  const other = vi.fn()
  offerBack(other)
  end() // ends nothing of another's
  expect(press()).toBe(true)
  expect(other).toHaveBeenCalledTimes(1)
  expect(take).not.toHaveBeenCalled()
})
