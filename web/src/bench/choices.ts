import type { Schemas } from '@/api/client'

/** What the bench offers to choose from, in the words of a cook. */
export const strategies: { value: Schemas['Strategy']; label: string; key: string; does: string }[] = [
  { value: 'hold_back_liquid', label: 'hold back liquid', key: '1', does: 'flour stays, milk gives way' },
  { value: 'build_up_flour', label: 'build up flour', key: '2', does: 'milk stays, flour and its powder rise' },
  { value: 'dry_addition', label: 'dry the addition', key: '3', does: 'the base stays, the addition is squeezed or reduced' },
  { value: 'shared', label: 'shared', key: '4', does: 'milk and flour both move a little' },
  { value: 'leave', label: 'leave it', key: '5', does: 'no offsets' },
]

/** How flour got into a cup. */
export const flourMethods: { value: Schemas['FlourMethod']; label: string }[] = [
  { value: 'spooned', label: 'spooned in' },
  { value: 'scooped', label: 'scooped with it' },
  { value: 'sifted', label: 'sifted in' },
]

/** How full a spoon or a cup of a powder is. */
export const fills: { value: Schemas['Fullness']; label: string }[] = [
  { value: 'heaped', label: 'heaped' },
  { value: 'rounded', label: 'rounded' },
  { value: 'level', label: 'level' },
  { value: 'scant', label: 'scant' },
]

/** Where something stands that is not in the batter. */
export const places: Record<Schemas['Place'], string> = { top: 'on top', middle: 'inside', beside: 'beside', pan: 'for the pan', serving: 'to serve' }

export const holds: { value: Schemas['Hold']; label: string; does: string }[] = [
  { value: 'thickness', label: 'Thickness', does: 'pours like the base' },
  { value: 'sweetness', label: 'Sweetness', does: 'tastes as sweet as the base' },
  { value: 'lift', label: 'Lift', does: 'as much gas for the flour' },
  { value: 'tang', label: 'Tang', does: 'as much soda for the acid' },
  { value: 'salt', label: 'Salt', does: 'as salty as the base' },
  { value: 'fat', label: 'Fat', does: 'as rich for the flour' },
  { value: 'structure', label: 'Structure', does: 'adds whole eggs when it would tear' },
  { value: 'batch_size', label: 'Batch size', does: 'the bowl stays as heavy as the base' },
]

export const forms: { value: Schemas['Form']; label: string; many: string; common: boolean }[] = [
  { value: 'pancake', label: 'Pancake', many: 'pancakes', common: true },
  { value: 'waffle', label: 'Waffle', many: 'waffles', common: true },
  { value: 'crepe', label: 'Crêpe', many: 'crêpes', common: true },
  { value: 'drop_scone', label: 'Drop scone', many: 'drop scones', common: false },
  { value: 'flourless', label: 'Flourless', many: 'flourless pancakes', common: false },
]

export const stages: { value: Schemas['Stage']; label: string }[] = [
  { value: 'batter', label: 'into the batter' },
  { value: 'dry', label: 'with the flour' },
  { value: 'fold_in', label: 'folded in last' },
  { value: 'infused', label: 'steeped, strained' },
  { value: 'on_portion', label: 'on each portion' },
  { value: 'under_portion', label: 'under the batter' },
]

export const unitLabels: Record<Schemas['Unit'], string> = {
  g: 'g',
  kg: 'kg',
  ml: 'ml',
  l: 'l',
  tsp: 'tsp',
  tbsp: 'tbsp',
  cup: 'cup',
  fl_oz: 'fl oz',
  oz: 'oz',
  lb: 'lb',
  each: 'pieces',
  pinch: 'pinch',
  can: 'can',
  mug: 'mug',
  glass: 'glass',
  handful: 'handful',
}
