import type { Schemas } from '@/api/client'
import type { IconName } from '@/parts/icons'

/** The kinds of a sauce, in a cook's words. */
export const kinds = [
  { value: 'compote', label: 'Compote', says: 'fruit, simmered' },
  { value: 'syrup', label: 'Syrup', says: 'of sugar, juice or strained fruit' },
  { value: 'caramel', label: 'Caramel', says: 'sugar to amber, then cream and butter' },
  { value: 'cream', label: 'Whipped cream', says: 'with sugar and a flavour' },
  { value: 'butter', label: 'Butter', says: 'flavoured, or browned' },
  { value: 'macerated', label: 'Fruit in sugar', says: 'raw, it draws its juice' },
  { value: 'nut', label: 'Chocolate or nut sauce', says: 'melted and thinned' },
  { value: 'dairy', label: 'Yogurt or curd', says: 'stirred, cold' },
  { value: 'filling', label: 'Filling', says: 'for the middle' },
] as const satisfies { value: Schemas['Sauce']['kind']; label: string; says: string }[]

const made: Record<string, string> = { fruit_syrup: 'Fruit syrup', sugar_syrup: 'Sugar syrup' }
export const kindLabel = (kind: string) => made[kind] ?? kinds.find((k) => k.value === kind)?.label ?? kind

/** When in the morning it is made. */
export const whenLabel: Record<Schemas['SauceAnswer']['when'], string> = {
  before: 'made before anybody mixes',
  resting: 'made while the batter rests',
  last_pan: 'made while the last ones cook',
}

/** What judges a pot. */
export const judges: Record<Schemas['SauceStop']['by'], { label: string; icon: IconName; decimals: number }> = {
  weight: { label: 'weight', icon: 'scale', decimals: 0 },
  refractometer: { label: 'refractometer', icon: 'drop', decimals: 0 },
  temperature: { label: 'probe', icon: 'probe', decimals: 1 },
  eye: { label: 'eye', icon: 'eye', decimals: 0 },
}

export const places: Record<Schemas['Place'], string> = {
  top: 'on top',
  middle: 'inside',
  beside: 'beside',
  pan: 'in the pan',
  serving: 'at the table',
}
