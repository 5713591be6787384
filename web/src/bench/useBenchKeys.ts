import { useEventListener } from '@vueuse/core'
import { letterKeys, unitsShown } from '@/parts/settings'
import type { useBench } from './bench'
import { forms, strategies } from './choices'

type Doors = { find: () => void; keys: () => void; heat: () => void; back: () => void }

const typing = (t: EventTarget | null) =>
  t instanceof HTMLElement && !!t.closest('input:not([type=radio]), textarea, select, [contenteditable], .el-dialog, .el-drawer, .el-popper')
const ownArrows = (t: EventTarget | null) => t instanceof HTMLElement && !!t.closest('[role=slider], [role=radiogroup], input[type=radio]')

/** The one table of keys, matched on the character typed and inert while typing in a field. */
export function useBenchKeys(bench: ReturnType<typeof useBench>, doors: Doors) {
  useEventListener(window, 'keydown', (e: KeyboardEvent) => {
    if ((e.ctrlKey || e.metaKey) && !e.altKey) {
      const key = e.key.toLowerCase()
      if (key !== 'z' || typing(e.target)) return
      ;(e.shiftKey ? bench.redo : bench.undo)()
      e.preventDefault()
      return
    }
    if (e.altKey || typing(e.target)) return
    if (e.key === 'ArrowDown' || e.key === 'ArrowUp') {
      if (ownArrows(e.target)) return
      bench.move(e.key === 'ArrowDown' ? 1 : -1)
      e.preventDefault()
      return
    }
    if (e.key === 'Escape') return doors.back()
    if (!letterKeys.value) return
    const steps = e.shiftKey ? 10 : 1
    const active = bench.active
    const strategy = strategies.find((s) => s.key === e.key)
    switch (e.key) {
      case '/':
        doors.find()
        break
      case '?':
        doors.keys()
        break
      case '-':
      case '−':
      case '_':
      case '[':
      case '{':
        if (active) bench.step(active, -(e.key === '_' || e.key === '{' ? 10 : steps))
        break
      case '+':
      case '=':
      case ']':
      case '}':
        if (active) bench.step(active, e.key === '}' ? 10 : e.key === '+' ? 1 : steps)
        break
      case 'g':
      case 'G':
        unitsShown.value = unitsShown.value === 'grams' ? 'cups' : 'grams'
        break
      case 'f':
      case 'F':
        bench.change((d) => (d.form = forms[(forms.findIndex((f) => f.value === d.form) + 1) % forms.length]!.value))
        break
      case 'b':
      case 'B':
        bench.togglePlain()
        break
      case 'h':
      case 'H':
        doors.heat()
        break
      case 'p':
      case 'P':
        if (active) bench.togglePin(active)
        break
      default:
        if (!strategy) return
        bench.change((d) => (d.offset = { ...d.offset, strategy: strategy.value }))
    }
    e.preventDefault()
  })
}
