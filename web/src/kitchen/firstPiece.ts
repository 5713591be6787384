import { ask } from '@/parts/ask'
import { said, type Schemas } from '@/api/client'
import { say } from '@/parts/say'
import { offerUndo } from '@/parts/undo'
import { useKitchen } from './kitchen'

export type PieceVerdict = Schemas['FirstPieceWish']['verdict']

/** Keeps a plate as it is known now; the rest of the kitchen stays as it is by then. */
async function keep(plate: Schemas['Griddle'], then: () => unknown) {
  const kitchen = useKitchen()
  const own = kitchen.own
  const kept = own && (await kitchen.save({ ...own, griddles: own.griddles?.map((g) => (g.id === plate.id ? plate : g)) }))
  if (!kept) throw new Error(kitchen.trouble ?? 'The plate could not be saved. Look at it in the Kitchen.')
  await then()
}

/** The first one cooked puts a plate of the kitchen right, for every morning; one tap takes it back. */
export async function learnPlate(before: Schemas['Griddle'], verdict: PieceVerdict, then: () => unknown = () => undefined) {
  try {
    const learnt = await ask('/first-pieces', { griddle: before, verdict })
    if (JSON.stringify(learnt.griddle) === JSON.stringify(before)) say({ message: learnt.text, duration: 4000, grouping: true })
    else {
      await keep(learnt.griddle, then)
      offerUndo(learnt.text, () => keep(before, then).catch((e: unknown) => say(said(e))))
    }
  } catch (e) {
    say(said(e))
  }
}
