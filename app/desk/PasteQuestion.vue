<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import { usePasting } from '../stores/pasting'

const pasting = usePasting()
const always = ref(true)
const first = ref<HTMLElement | null>(null)
const opening = computed(() => (pasting.asked?.text ?? '').slice(0, 160))
</script>

<template>
  <Dialog
    :open="pasting.asked !== null"
    class="relative z-50"
    :initial-focus="first"
    @close="pasting.answer(null, false)"
  >
    <div class="fixed inset-0 bg-ink/25" aria-hidden="true" />
    <div class="fixed inset-0 flex items-start p-10">
      <DialogPanel class="w-[520px] border border-ink bg-paper p-6">
        <DialogTitle as="h2">What shall come along?</DialogTitle>
        <p class="mt-1 text-soft">“{{ opening }}{{ opening.length >= 160 ? ' …' : '' }}”</p>
        <div class="mt-4 flex flex-col gap-2">
          <button ref="first" type="button" class="plain text-left" @click="pasting.answer('plain', always)">
            <strong class="block">Words alone</strong
            ><span class="font-normal text-soft"
              >They take the style at the caret. Nothing of their look comes along.</span
            >
          </button>
          <button type="button" class="plain text-left" @click="pasting.answer('structure', always)">
            <strong class="block">Words and structure</strong
            ><span class="font-normal text-soft"
              >Headings, lists and emphasis take this document’s own styles. Faces, sizes and colours stay behind.</span
            >
          </button>
        </div>
        <label class="mt-4 flex items-center gap-2"
          ><input v-model="always" type="checkbox" />Remember this; it can be changed under Pages</label
        >
        <button type="button" class="link mt-3" @click="pasting.answer(null, false)">Do not paste</button>
      </DialogPanel>
    </div>
  </Dialog>
</template>
