<script setup lang="ts">
import { useResizeObserver } from '@vueuse/core'
import { BarChart } from 'echarts/charts'
import { AriaComponent, GridComponent, TooltipComponent } from 'echarts/components'
import { init, use, type EChartsType } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import type { FaceCensus } from '~~/core/census/census'
import { faceName } from '~~/core/font/face'
import { grouped, percentage } from '../../desk/words'

use([BarChart, GridComponent, TooltipComponent, AriaComponent, SVGRenderer])

const props = defineProps<{ faces: readonly FaceCensus[] }>()
const emit = defineEmits<{ choose: [key: string] }>()
const holder = ref<HTMLElement | null>(null)
let chart: EChartsType | null = null
const colors = ['#1B2430', '#1F6F6B', '#7FA8A3', '#B8AC93', '#7C8490', '#D1C8B4', '#46535F', '#A9C4C0']

/** Absent faces are hatched as well as coloured, so that no one needs the colour. */
function render(): void {
  if (!chart) return
  let plain = 0
  chart.setOption(
    {
      animation: false,
      aria: { enabled: true, decal: { show: false } },
      grid: { left: 0, right: 0, top: 0, bottom: 0 },
      xAxis: { type: 'value', show: false, max: 'dataMax' },
      yAxis: { type: 'category', show: false, data: ['text'] },
      tooltip: {
        trigger: 'item',
        confine: true,
        formatter: ({ seriesIndex }: { seriesIndex: number }) => {
          const face = props.faces[seriesIndex]!
          const name = document.createElement('span')
          const share = `${grouped(face.characters)} characters, ${percentage(face.share)}`
          name.textContent = `${faceName(face.family, face.style)}: ${share}${face.status === 'absent' ? ', absent' : ''}`
          return name
        },
      },
      series: props.faces.map(face => ({
        type: 'bar',
        stack: 'text',
        name: `${face.family} ${face.style}`,
        data: [face.characters],
        barWidth: '100%',
        cursor: 'pointer',
        itemStyle:
          face.status === 'absent'
            ? {
                color: '#FFFFFF',
                decal: {
                  symbol: 'rect',
                  color: '#564FA0',
                  dashArrayX: [1, 0],
                  dashArrayY: [2, 2],
                  rotation: -Math.PI / 4,
                },
              }
            : { color: colors[plain++ % colors.length] },
      })),
    },
    true,
  )
}

onMounted(() => {
  chart = init(holder.value!, null, { renderer: 'svg' })
  chart.on('click', ({ seriesIndex }) => {
    if (seriesIndex !== undefined) emit('choose', props.faces[seriesIndex]!.key)
  })
  render()
})
// The tray changes its width with the window and with the boundary.
useResizeObserver(holder, () => chart?.resize())
watch(() => props.faces, render)
onBeforeUnmount(() => chart?.dispose())
</script>

<template>
  <div
    ref="holder"
    class="h-[22px] w-full border border-ink"
    role="img"
    aria-label="How the text divides by face; the table below has the figures"
  />
</template>
