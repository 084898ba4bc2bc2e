<script setup lang="ts">
import { useResizeObserver } from '@vueuse/core'
import { LineChart } from 'echarts/charts'
import { AriaComponent, GridComponent, TooltipComponent } from 'echarts/components'
import { init, use, type EChartsType } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import type { ShareOnDay } from '~~/shared/api'
import { percentage } from '../desk/words'

use([LineChart, GridComponent, TooltipComponent, AriaComponent, SVGRenderer])

/** How much was to style, day by day. */
const props = defineProps<{ days: readonly ShareOnDay[] }>()
const holder = ref<HTMLElement | null>(null)
let chart: EChartsType | null = null
const shareOf = ({ characters, toStyle }: ShareOnDay) => (characters === 0 ? 1 : toStyle / characters)
const words = computed(() => props.days.map(each => `${each.day}: ${percentage(shareOf(each))}`).join('; '))
function render(): void {
  chart?.setOption({
    animation: false,
    grid: { left: 36, right: 8, top: 8, bottom: 20 },
    xAxis: { type: 'category', data: props.days.map(each => each.day), axisTick: { show: false } },
    yAxis: { type: 'value', min: 0, max: 100, interval: 50, axisLabel: { formatter: '{value} %' } },
    tooltip: { trigger: 'axis', confine: true, valueFormatter: (value: number) => `${value} %` },
    series: [
      {
        type: 'line',
        data: props.days.map(each => Math.round(shareOf(each) * 1000) / 10),
        lineStyle: { color: '#1F6F6B' },
        itemStyle: { color: '#1F6F6B' },
        symbolSize: 5,
      },
    ],
  })
}
onMounted(() => {
  chart = init(holder.value!, null, { renderer: 'svg' })
  render()
})
useResizeObserver(holder, () => chart?.resize())
watch(() => props.days, render)
onBeforeUnmount(() => chart?.dispose())
</script>

<template>
  <div ref="holder" class="h-[110px] w-full" role="img" :aria-label="`To style, day by day. ${words}`" />
</template>
