import { computed, type ComputedRef, type Ref } from 'vue'
import type { Schemas } from '@/api/client'
import { places } from '@/bench/choices'

type Fix = Schemas['ReadingFix']
export type Fixes = Record<number, Fix>
export type Place = NonNullable<Fix['place']>

/** A line of a reading with what the cook put right of it. */
export interface Row {
  at: number // in the reading
  line: Schemas['ReadLine']
  fix: Fix | undefined
}
/** Two lines with other amounts of the same, asked at the first of them. */
export interface Rivals {
  lines: [number, number]
  amounts: string[]
}
/** Lines that go to one place. */
export interface Group {
  key: string
  name: string
  says?: string
  rows: Row[]
}

const bowl = 'bowl'
const placeOf = (r: Row) => r.fix?.place ?? r.line.place ?? bowl

/** The lines of a reading by where they go: the bowl first, then each pot, then what stands beside. */
export function useGroups(reading: Ref<Schemas['Reading'] | undefined>, fixes: Ref<Fixes>): ComputedRef<Group[]> {
  return computed(() => {
    const read = reading.value
    if (!read) return []
    const rows = read.lines.map((line, at): Row => ({ at, line, fix: fixes.value[at] }))
    const at = (place: string) => rows.filter((r) => placeOf(r) === place)
    const pots = (read.pots ?? []).map((p): Group => ({ key: p.id, name: p.name, says: potSays(p), rows: at(p.id) }))
    const known = new Set([bowl, ...pots.map((p) => p.key)])
    const beside = rows.filter((r) => !known.has(placeOf(r)))
    return [
      { key: bowl, name: 'In the bowl', says: read.bowl?.text, rows: at(bowl) },
      ...pots,
      { key: 'beside', name: 'For the pan and the table', rows: beside },
    ].filter((g) => g.rows.length > 0)
  })
}

/** What a pot becomes. */
function potSays(p: Schemas['ReadPot']) {
  if (p.trouble) return p.trouble
  if (!p.sauce) return `goes ${places[p.on]}`
  const kind = p.kind_name === p.name ? '' : `${p.kind_name}, `
  return `${kind}${Math.round(p.ends_g ?? 0)} g when done; kept as a sauce, goes ${places[p.on]}`
}

/** Where a line may go: the bowl, a place, a pot of the reading, or a sauce of its own. */
export function placesOf(read: Schemas['Reading'] | undefined): { value: Place; label: string }[] {
  const pots = read?.pots ?? []
  return [
    { value: 'bowl', label: 'in the bowl' },
    ...(Object.entries(places) as [Schemas['Place'], string][]).map(([value, label]) => ({ value: value as Place, label })),
    ...pots.map((p) => ({ value: p.id as Place, label: p.name })),
    ...(read?.next_pot ? [{ value: read.next_pot as Place, label: 'a sauce of its own' }] : []),
  ]
}
