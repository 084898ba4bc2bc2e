<script setup lang="ts">
import { useDesk } from '../../stores/desk'
import { useWords } from '../../stores/words'

/** New objects: each begins with the starting type of its kind. */
const desk = useDesk()
const words = useWords()
const rows = ref(3)
const columns = ref(3)
const isText = computed(() => desk.info?.document.kind === 'text')

async function shape(): Promise<void> {
  const holder = await desk.engine?.ask('holder', { view: desk.view, page: desk.page })
  const sheet = desk.shown[desk.page]
  if (!holder || !sheet) {
    words.message = 'There is nothing on this page that a shape could be put on. Nothing was changed.'
    return
  }
  const place = { x: sheet.width / 4, y: sheet.height / 3, width: sheet.width / 3, height: sheet.height / 8 }
  await words.edit([{ type: 'add-shape', ...holder, place }], made => {
    if (made !== null) words.frame = { part: holder.part, node: made }
    return null
  })
}
async function table(): Promise<void> {
  const { spot } = words
  if (spot)
    await words.edit(
      [
        {
          type: 'add-table',
          part: spot.part,
          node: spot.node,
          rows: Math.max(1, Math.min(rows.value, 200)),
          columns: Math.max(1, Math.min(columns.value, 50)),
        },
      ],
      () => null,
    )
}
async function note(endnote: boolean): Promise<void> {
  const { spot } = words
  if (spot) {
    await words.edit([{ type: 'add-note', part: spot.part, node: spot.node, at: spot.offset, endnote }], made =>
      made === null ? null : { part: spot.part, node: made, offset: 0 },
    )
    await words.reveal()
  }
}
async function header(which: 'header' | 'footer'): Promise<void> {
  const master = await desk.engine?.ask('master', { page: desk.page })
  if (!master) {
    words.message = 'This page has no master page that could have one. Nothing was changed.'
    return
  }
  await words.edit([{ type: 'add-header', ...master, which }], made =>
    made === null ? null : { part: master.part, node: made, offset: 0 },
  )
}
</script>

<template>
  <section class="mt-7" aria-labelledby="new-things">
    <h2 id="new-things">Put in</h2>
    <p class="text-soft">
      New things begin with the default of their kind.<template v-if="isText && !words.spot">
        Notes and tables go where the caret is.</template
      >
    </p>
    <div class="mt-2 flex flex-wrap items-end gap-2">
      <button type="button" class="plain" @click="shape">Shape with a label</button>
      <template v-if="isText">
        <button type="button" class="plain" :disabled="!words.spot" @click="note(false)">Footnote</button>
        <button type="button" class="plain" :disabled="!words.spot" @click="note(true)">Endnote</button>
        <button type="button" class="plain" @click="header('header')">Header</button>
        <button type="button" class="plain" @click="header('footer')">Footer</button>
        <label class="text-[13px] text-soft"
          >Rows<input
            v-model.number="rows"
            type="number"
            min="1"
            max="200"
            class="field mt-[2px] block w-[64px] text-ink"
        /></label>
        <label class="text-[13px] text-soft"
          >Columns<input
            v-model.number="columns"
            type="number"
            min="1"
            max="50"
            class="field mt-[2px] block w-[64px] text-ink"
        /></label>
        <button type="button" class="plain" :disabled="!words.spot" @click="table">Table</button>
      </template>
    </div>
  </section>
</template>
