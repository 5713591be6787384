import type { Worksheet } from '@/api/client'

/** Whether the portion takes the shape of an iron. */
export const inMould = (sheet: Worksheet) => sheet.plate?.fill !== undefined

/** How wide a portion is drawn, and how long when it is no round; nothing where nobody knows. */
export function shapeOf(sheet: Worksheet): { width: number; length?: number } | undefined {
  const { portion, plate } = sheet
  if (portion.diameter_mm) return { width: portion.diameter_mm }
  if (inMould(sheet) && plate) return { width: plate.width_mm, length: plate.round ? undefined : plate.depth_mm }
  return undefined
}
