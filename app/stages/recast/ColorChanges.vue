<script setup lang="ts">
import { colorKinds, type ColorKind } from '~~/core/document/color-references'
import { useDesk } from '../../stores/desk'
import { useRecast } from '../../stores/recast'
import { counted } from '../../desk/words'

/** Colours of the document, and one for another on all pages. */
const desk = useDesk()
const recast = useRecast()
const form = computed(() => recast.form)
const open = ref(false)
const colors = computed(() => desk.census?.colors ?? [])
const kindWords: Readonly<Record<ColorKind, string>> = {
  text: 'text',
  fill: 'fills',
  page: 'page backgrounds',
  line: 'lines',
}
const hex = (value: string) => (/^#[0-9a-f]{6}$/i.test(value) ? value : '#000000')
function begin(color: string): void {
  form.value.colors = [...form.value.colors, { from: color, to: color, kinds: [...recast.everyKind] }]
}
function toggle(index: number, kind: ColorKind): void {
  const each = form.value.colors[index]!
  const kinds = each.kinds.includes(kind) ? each.kinds.filter(other => other !== kind) : [...each.kinds, kind]
  if (kinds.length > 0) each.kinds = kinds
}
</script>

<template>
  <section aria-label="Colours">
    <button
      type="button"
      class="mt-4 flex items-baseline gap-2"
      :aria-expanded="open || form.colors.length > 0"
      @click="open = !open"
    >
      <h2>Colours</h2>
      <span class="text-soft">{{ counted(colors.length, 'colour') }} named in this document</span>
    </button>
    <div v-if="open || form.colors.length > 0">
      <ul class="mt-1 flex flex-wrap gap-1.5">
        <li v-for="each in colors.slice(0, 40)" :key="each.color">
          <button
            type="button"
            class="flex items-center gap-1.5 border border-rule bg-sheet px-1.5 py-[2px] text-[13px] tabular-nums"
            :title="
              Object.entries(each.kinds)
                .map(([kind, count]) => `${kindWords[kind as ColorKind]} ${count}`)
                .join(', ')
            "
            :aria-label="`Exchange ${each.color}, named ${each.count} times`"
            @click="begin(each.color)"
          >
            <span class="inline-block size-[14px] border border-soft" :style="{ background: each.color }" />{{
              each.color
            }}
            <span class="text-soft">{{ each.count }}</span>
          </button>
        </li>
      </ul>
      <div v-for="(each, index) in form.colors" :key="index" class="mt-2 flex flex-wrap items-center gap-2 text-[13px]">
        <span class="inline-block size-[18px] border border-soft" :style="{ background: each.from }" /><span
          class="tabular-nums"
          >{{ each.from }}</span
        >
        becomes
        <input v-model="each.to" class="field w-[92px]" maxlength="7" :aria-label="`What ${each.from} becomes`" /><input
          type="color"
          :value="hex(each.to)"
          class="h-[30px] w-[30px]"
          :aria-label="`Pick what ${each.from} becomes`"
          @input="each.to = ($event.target as HTMLInputElement).value"
        />
        <label v-for="kind in colorKinds" :key="kind" class="flex items-center gap-1"
          ><input
            type="checkbox"
            class="size-[14px]"
            :checked="each.kinds.includes(kind)"
            @change="toggle(index, kind)"
          />{{ kindWords[kind] }}</label
        >
        <button
          type="button"
          class="link"
          :aria-label="`Leave ${each.from}`"
          @click="form.colors = form.colors.filter((_, at) => at !== index)"
        >
          Leave it
        </button>
      </div>
    </div>
  </section>
</template>
