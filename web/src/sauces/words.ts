import type { Schemas } from '@/api/client'
import type { IconName } from '@/parts/icons'

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
