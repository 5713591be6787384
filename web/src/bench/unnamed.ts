import { useLocalStorage } from '@vueuse/core'
import type { ListItem } from '@/api/client'

/** Variations that were begun on this tablet and that nobody has named yet. */
export function useUnnamed(list: () => ListItem[]) {
  const ids = useLocalStorage<string[]>('ladle.unnamed', [])
  const drop = (id: string) => (ids.value = ids.value.filter((x) => x !== id))
  return {
    has: (id: string) => ids.value.includes(id),
    add: (id: string) => (ids.value = [...ids.value, id]),
    drop,
    /** It was begun while the program was away, and has its own id now. */
    moved: (from: string, to: string) => ids.value.includes(from) && (ids.value = [...ids.value.filter((x) => x !== from), to]),
    /** The name, or with the next number where another has it. */
    free(name: string, but?: string) {
      const taken = new Set(list().flatMap((v) => (v.id === but ? [] : [v.name])))
      let n = 1
      while (taken.has(numbered(name, n))) n++
      return numbered(name, n)
    },
    /** It is that name, with or without a number. */
    calls: (name: string, proposed: string) =>
      name === proposed || (name.startsWith(`${proposed} `) && /^\d+$/.test(name.slice(proposed.length + 1))),
  }
}
const numbered = (name: string, n: number) => (n === 1 ? name : `${name} ${n}`)
