<script setup lang="ts">
import { useDesk } from '../../stores/desk'
import { useWords } from '../../stores/words'

/** The pages of a presentation or drawing: one more, one less, another order. */
const desk = useDesk()
const words = useWords()
const name = computed(() => desk.all.pages[desk.page]?.name ?? '')
const to = ref(1)
watch(
  () => desk.page,
  page => {
    to.value = page + 1
  },
  { immediate: true },
)

async function change(
  make: (holder: { part: string; node: number }) => Parameters<typeof words.edit>[0],
  then: number,
): Promise<void> {
  const holder = await desk.engine?.ask('holder', { view: 'pages', page: desk.page })
  if (!holder) return
  if (!(await words.edit(make(holder), () => null))) return
  words.clear()
  await desk.count()
  desk.show('pages', then)
}
const add = () => change(holder => [{ type: 'add-page', ...holder }], desk.page + 1)
const remove = () => change(holder => [{ type: 'remove-page', ...holder }], Math.max(desk.page - 1, 0))
const move = () => change(holder => [{ type: 'move-page', ...holder, to: to.value - 1 }], to.value - 1)
</script>

<template>
  <section v-if="desk.view === 'pages'" class="mt-7" aria-labelledby="order">
    <h2 id="order">
      Page {{ desk.page + 1 }}<span v-if="name" class="ml-2 font-sans text-[14px] text-soft">{{ name }}</span>
    </h2>
    <div class="mt-2 flex flex-wrap items-end gap-3">
      <button type="button" class="plain" @click="add">Add a page behind it</button>
      <button type="button" class="plain" :disabled="desk.all.pages.length < 2" @click="remove">Take it away</button>
      <label class="text-[13px] text-soft"
        >Move it to place<input
          v-model.number="to"
          type="number"
          min="1"
          :max="desk.all.pages.length"
          class="field mt-[2px] block w-[84px] text-ink tabular-nums"
      /></label>
      <button
        type="button"
        class="plain"
        :disabled="to === desk.page + 1 || to < 1 || to > desk.all.pages.length"
        @click="move"
      >
        Move it
      </button>
    </div>
  </section>
</template>
