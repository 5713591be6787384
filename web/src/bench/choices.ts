import type { Schemas } from '@/api/client'

/** What the bench offers to choose from, in the words of a cook. */
export const strategies: { value: Schemas['Strategy']; label: string; key: string }[] = [
  { value: 'hold_back_liquid', label: 'hold back liquid', key: '1' },
  { value: 'build_up_flour', label: 'build up flour', key: '2' },
  { value: 'shared', label: 'shared', key: '4' },
  { value: 'leave', label: 'leave it', key: '5' },
]

export const forms: { value: Schemas['Form']; label: string; common: boolean }[] = [
  { value: 'pancake', label: 'Pancake', common: true },
  { value: 'waffle', label: 'Waffle', common: true },
  { value: 'crepe', label: 'Crêpe', common: true },
  { value: 'drop_scone', label: 'Drop scone', common: false },
  { value: 'flourless', label: 'Flourless', common: false },
]

export const stages: { value: Schemas['Stage']; label: string }[] = [
  { value: 'batter', label: 'into the batter' },
  { value: 'dry', label: 'with the flour' },
  { value: 'fold_in', label: 'folded in last' },
  { value: 'on_portion', label: 'on each portion' },
  { value: 'under_portion', label: 'under the batter' },
]

/** Ladles on the hook; the cook may type any other. */
export const ladles = [45, 60, 80, 120] // ml

export const unitLabels: Record<Schemas['Unit'], string> = {
  g: 'g', kg: 'kg', ml: 'ml', l: 'l', tsp: 'tsp', tbsp: 'tbsp', cup: 'cup', fl_oz: 'fl oz', oz: 'oz', lb: 'lb', each: 'pieces', pinch: 'pinch', can: 'can',
}
