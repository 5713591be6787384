import { ask } from '@/parts/ask'
import { today } from '@/parts/clock'
import { useAsked } from '@/parts/useAsked'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import type { Schemas, Worksheet } from '@/api/client'
import { useBench } from '@/bench/bench'

export type Cook = Schemas['Cook']
type Wish = NonNullable<Schemas['Cooking']>
type Step = Schemas['HeatStep']
type Own = Schemas['OwnMinutes']
export type Side = 'first_s' | 'second_s'

/** How the variation on the bench is cooked. It arrives a moment after the bowl's own figures. */
export const useHeat = defineStore('heat', () => {
  const bench = useBench()
  const of = shallowRef<Worksheet>() // the bench's, when it was asked
  const question = useAsked(
    async (signal) => {
      const body = bench.asked()
      const now = bench.sheet
      if (!body || !now) return
      const answer = await ask('/worksheets', body, { include: [curves.value ? 'curves' : 'cook', ...bench.inCups()], signal })
      of.value = now
      return answer
    },
    { afterMs: 200 }, // the heat is worked out when the hand rests
  )
  const sheet = question.answer // with the heat and the steps at the plate
  const trouble = computed(() => question.trouble.value ?? Object.values(question.faults.value)[0])
  const open = ref(false) // in the place of the list
  const curves = ref(false) // its course is looked at

  const cook = computed(() => sheet.value?.cook)
  const coming = computed(() => !trouble.value && (bench.working || of.value !== bench.sheet || !cook.value))
  const clause = computed(() => sheet.value?.verdict.find((v) => v.kind === 'heat'))

  watch(
    () => bench.sheet,
    () => void question.soon(),
    { immediate: true },
  )
  watch(curves, (wanted) => wanted && void question.soon())
  watch(
    () => bench.id,
    () => {
      question.clear()
      of.value = undefined
    },
  )

  /** Where the plate stands; without a figure it is advised. */
  function setPlate(c?: number) {
    const pour = bench.doc?.cook?.heat?.find((h) => h.at === 'pour')
    if (pour) step('pour', c === undefined ? undefined : { c }) // the step is what stands there
    if (pour && c !== undefined) return
    bench.change((d) => {
      d.kitchen = { ...d.kitchen, griddle_c: c }
      if (c === undefined) delete d.kitchen.griddle_c
      if (!Object.keys(d.kitchen).length) delete d.kitchen
    })
  }

  /** A wish for the plate; undefined takes it back. */
  function wish(patch: Partial<Wish>) {
    bench.change((d) => {
      const next = { ...d.cook, ...patch }
      for (const k of Object.keys(next) as (keyof Wish)[]) if (next[k] === undefined || next[k] === false) delete next[k]
      if (Object.keys(next).length) d.cook = next
      else delete d.cook
    })
  }

  /** A step of the heat; undefined takes it out. */
  function step(at: Step['at'], to?: Omit<Step, 'at'>) {
    const others = (bench.doc?.cook?.heat ?? []).filter((h) => h.at !== at)
    const next = (['mixing', 'pour', 'flip'] as const).flatMap((m) => (m !== at ? others.filter((h) => h.at === m) : to ? [{ at, ...to }] : []))
    wish({ heat: next.length ? next : undefined, hot_start: undefined })
  }

  /** The cook's own minutes on this plate, in the place of others that they had there. */
  function own(o: Omit<Own, 'day'>) {
    wish({ own: [...others(), { ...o, day: today() }] })
  }
  const plate = () => cook.value?.plate_id ?? ''
  const others = () => (bench.doc?.cook?.own ?? []).filter((o) => o.on !== plate())
  /** What is offered, or what they had elsewhere, for this thickness and this heat. */
  function useOwn() {
    const o = cook.value?.own
    if (!o) return
    own({ on: plate(), first_s: o.first_side_s, second_s: o.second_side_s, c: o.griddle_c, poured_mm: o.poured_mm, from: o.from ?? 'typed' })
  }
  function ownSide(side: Side, s: number) {
    const had = bench.doc?.cook?.own?.find((o) => o.on === plate())
    if (had) own({ ...had, [side]: s, from: 'typed' })
  }
  function takeOurs() {
    const left = others()
    wish({ own: left.length ? left : undefined })
  }

  /** So much fat of the pan for each piece, as a part of the variation; without one it is the usual again. */
  function panFat(text?: string, ingredients?: string[], each?: number) {
    bench.change((d) => {
      const now = d.parts?.find((p) => p.kind === 'pan')
      if (now && each) now.each_g = each
      else if (each) d.parts = [...(d.parts ?? []), { kind: 'pan', text: text!, lines: ingredients?.map((i) => ({ ingredient: i })), each_g: each }]
      else delete now?.each_g
    })
  }
  function chooseFat(fat: Wish['fat']) {
    bench.change((d) => {
      const pan = d.parts?.find((p) => p.kind === 'pan' && p.each_g !== undefined)
      if (pan?.lines?.some((l) => l.amount))
        delete pan.each_g // the recipe's own stays, the figure goes
      else d.parts = d.parts?.filter((p) => p !== pan)
      if (!d.parts?.length) delete d.parts
      d.cook = { ...d.cook, fat }
    })
  }

  return {
    step,
    panFat,
    chooseFat,
    useOwn,
    ownSide,
    takeOurs,
    sheet,
    cook,
    coming,
    clause,
    trouble,
    open,
    curves,
    ask: question.soon,
    setPlate,
    wish,
  }
})

/** What the choices are called. */
export const fats: Record<string, string> = { film: 'film of oil', butter: 'butter', oil: 'oil', both: 'butter + oil', none: 'none' }
export const whens: Record<string, string> = {
  each: 'for each load',
  first: 'for the first only',
  flip: 'and again at the flip',
  top: 'on top, cooked',
}
export const froms: Record<string, string> = { counter: 'counter', fridge: 'fridge' }
