import { expect, it } from 'vitest'
import screens from '../../components.d.ts?raw'
import kit from './kit.ts?raw'

it('names every component of the kit that a screen uses', () => {
  const used = [...screens.matchAll(/^\s+El(\w+):/gm)].map((m) => m[1]!.replace(/(?<!^)([A-Z])/g, '-$1').toLowerCase())
  const named = [...kit.matchAll(/components\/([\w-]+)\//g)].map((m) => m[1])
  expect(used.length).toBeGreaterThan(10)
  expect(used.filter((u) => !named.includes(u))).toEqual([])
})
