<script setup lang="ts">
import { LineChart } from 'echarts/charts'
import { GridComponent, MarkAreaComponent, MarkLineComponent, TooltipComponent } from 'echarts/components'
import { init, use, type EChartsCoreOption, type EChartsType } from 'echarts/core'
import { CanvasRenderer } from 'echarts/renderers'
import { onBeforeUnmount, onMounted, useTemplateRef, watch } from 'vue'

import { palette } from '../theme/palette'
import { three } from './figures'

/** A small chart of lines over one axis, each told from the others by its dash as well as its colour. */
export interface Line {
  name: string
  points: [number, number][]
  color: 'base' | 'motion'
  dashed?: boolean
}
const props = defineProps<{
  lines: Line[]
  x: string
  y: string
  height?: number
  mark?: number
  areas?: [number, number][]
  label: string
}>()

use([LineChart, GridComponent, MarkAreaComponent, MarkLineComponent, TooltipComponent, CanvasRenderer])
const element = useTemplateRef('element')
let chart: EChartsType | undefined

function option(): EChartsCoreOption {
  const { base, motion, soft, rule, ink } = palette.value
  const colors = { base, motion }
  const axis = {
    axisLine: { lineStyle: { color: rule } },
    axisLabel: { color: soft, fontSize: 10, formatter: (v: number) => three(v) },
    splitLine: { show: false },
    nameTextStyle: { color: soft, fontSize: 10 },
  }
  return {
    animation: false,
    grid: { left: 44, right: 10, top: 20, bottom: 30 },
    textStyle: { fontFamily: getComputedStyle(document.body).fontFamily },
    tooltip: { trigger: 'axis', valueFormatter: (v: number) => three(v), textStyle: { fontSize: 11 } },
    xAxis: {
      type: 'value',
      name: props.x,
      nameLocation: 'middle',
      nameGap: 17,
      min: 'dataMin',
      max: 'dataMax',
      ...axis,
    },
    yAxis: { type: 'value', name: props.y, nameGap: 6, splitNumber: 3, ...axis },
    series: props.lines.map((line, i) => ({
      type: 'line',
      name: line.name,
      data: line.points,
      symbol: 'none',
      lineStyle: { width: 1.5, color: colors[line.color], type: line.dashed ? 'dashed' : 'solid' },
      itemStyle: { color: colors[line.color] },
      ...(i === 0 &&
        props.mark !== undefined && {
          markLine: {
            silent: true,
            symbol: 'none',
            label: { show: false },
            lineStyle: { color: ink, width: 1, type: 'dotted' },
            data: [{ xAxis: props.mark }],
          },
        }),
      ...(i === 0 &&
        props.areas && {
          markArea: {
            silent: true,
            itemStyle: { color: motion, opacity: 0.16 },
            data: props.areas.map(([a, b]) => [{ xAxis: a }, { xAxis: b }]),
          },
        }),
    })),
  }
}

onMounted(() => {
  chart = init(element.value!)
  watch(
    () => [props.lines, props.mark, props.areas, palette.value],
    () => chart?.setOption(option(), true),
    { immediate: true },
  )
})
onBeforeUnmount(() => chart?.dispose())
</script>

<template>
  <div ref="element" role="img" :aria-label="label" :style="{ height: `${height ?? 110}px` }" />
</template>
