<script setup lang="ts">
import { onMounted, onUnmounted, ref, watch } from 'vue'
import { useElementSize } from '@vueuse/core'
import { LineChart } from 'echarts/charts'
import { GridComponent, LegendComponent, MarkLineComponent, TooltipComponent } from 'echarts/components'
import { init, use, type EChartsType } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import type { Schemas } from '@/api/client'
import { shift } from '@/parts/settings'
import { type Cook } from './heat'
import { clock } from '@/parts/clock'

use([LineChart, GridComponent, LegendComponent, MarkLineComponent, TooltipComponent, SVGRenderer])

const props = defineProps<{ cook: Cook }>()
const box = ref<HTMLElement>()
let chart: EChartsType | undefined
const { width } = useElementSize(box)

const token = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim()

type Moment = Schemas['CookMoment']
function line(name: string, moments: Moment[] | undefined, of: (m: Moment) => number, axis: number, colour: string, dashed = false) {
  return {
    name,
    type: 'line' as const,
    xAxisIndex: axis,
    yAxisIndex: axis,
    showSymbol: false,
    lineStyle: { color: colour, width: dashed ? 1.5 : 2.5, type: dashed ? ('dashed' as const) : ('solid' as const) },
    itemStyle: { color: colour },
    data: moments?.map((m) => [m.at_s, of(m)]) ?? [],
  }
}

function draw() {
  if (!chart) return
  const c = props.cook
  const ink = token('--ink-2')
  const axis = {
    axisLabel: { color: ink, fontSize: 13 },
    splitLine: { lineStyle: { color: token('--hair') } },
    nameTextStyle: { color: ink, fontSize: 13 },
  }
  const seconds = { ...axis, type: 'value' as const, max: 'dataMax' as const, axisLabel: { ...axis.axisLabel, formatter: (s: number) => clock(s) } }
  const flip = c.second_side_s === undefined ? [] : [{ xAxis: c.first_side_s, label: { formatter: 'flip', color: ink }, lineStyle: { color: ink } }]
  const bottom = line('first face', c.curve, (m) => m.bottom_c, 0, token('--crust-deep'))
  chart.setOption(
    {
      animation: false,
      textStyle: { fontFamily: token('--face') },
      tooltip: { trigger: 'axis', confine: true, valueFormatter: (v: unknown) => (v as number).toFixed(1) },
      legend: { top: 0, textStyle: { color: token('--ink'), fontSize: 13 } },
      grid: [
        { left: 52, right: '53%', top: 52, bottom: 30 },
        { left: '53%', right: 24, top: 52, bottom: 30 },
      ],
      xAxis: [seconds, { ...seconds, gridIndex: 1 }],
      yAxis: [
        { ...axis, name: '°C', type: 'value' },
        { ...axis, name: '% · g steam/m² in 10 s', type: 'value', gridIndex: 1, max: 100 },
      ],
      series: [
        { ...bottom, markLine: { symbol: 'none', data: flip } },
        line('middle', c.curve, (m) => m.centre_c, 0, token('--rim')),
        line('second face', c.curve, (m) => m.top_c, 0, token('--honey')),
        line('base: middle', c.base?.curve, (m) => m.centre_c, 0, token('--rim'), true),
        line('set', c.curve, (m) => 100 * m.set_share, 1, token('--leaf')),
        line('colour, first', c.curve, (m) => 100 * m.shade_first, 1, token('--crust-deep')),
        line('colour, second', c.curve, (m) => 100 * m.shade_second, 1, token('--honey')),
        line('steam', c.curve, (m) => 10 * m.steam_g_m2_s, 1, token('--water')),
        line('base: set', c.base?.curve, (m) => 100 * m.set_share, 1, token('--leaf'), true),
      ],
    },
    { notMerge: true },
  )
}

onMounted(() => {
  if (box.value) chart = init(box.value, undefined, { renderer: 'svg' })
  draw()
})
onUnmounted(() => chart?.dispose())
watch(width, () => chart?.resize())
watch([() => props.cook, shift], () => setTimeout(draw))
</script>

<template>
  <div class="curves">
    <p v-if="!cook.curve" class="muted">The curves are coming</p>
    <div ref="box" class="chart" role="img" aria-label="Temperatures, set, colour and steam over the time; dashed: the base" />
    <p class="muted">
      By the model of docs/maths.md, section 18: one slab, no edges; the share that has set at the flip is its weakest figure. Dashed: the base. Of
      the thickness of the poured batter and its rise the portion tells.
    </p>
  </div>
</template>

<style scoped>
.chart {
  width: 100%;
  height: 280px;
}
.muted {
  font-size: var(--t-mini);
}
</style>
