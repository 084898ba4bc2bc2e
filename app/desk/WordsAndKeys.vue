<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import { glossary, keyGroups } from '../kit/glossary'

/** All words of the desk's own, and all keys. */
const open = defineModel<boolean>({ required: true })
const words = Object.values(glossary).sort((a, b) => a.title.localeCompare(b.title))
const close = ref<HTMLButtonElement | null>(null)
</script>

<template>
  <Dialog :open="open" class="relative z-50" :initial-focus="close" @close="open = false">
    <div class="fixed inset-0 bg-ink/25" aria-hidden="true" />
    <div class="fixed inset-0 flex items-start overflow-y-auto p-8">
      <DialogPanel class="w-[940px] max-w-full border border-ink bg-paper p-6">
        <div class="flex items-baseline">
          <DialogTitle as="h2" class="flex-1">Words and keys</DialogTitle>
          <button ref="close" type="button" class="plain" @click="open = false">Close</button>
        </div>
        <div class="mt-3 grid grid-cols-[1fr_1fr] gap-x-8">
          <dl>
            <template v-for="each in words" :key="each.title">
              <dt class="mt-2 font-semibold first:mt-0">{{ each.title }}</dt>
              <dd class="text-[13px] leading-[18px]">{{ each.says }}</dd>
            </template>
          </dl>
          <div>
            <section v-for="group in keyGroups" :key="group.title" class="mb-3">
              <h3 class="font-semibold">{{ group.title }}</h3>
              <table>
                <tbody>
                  <tr v-for="[key, does] in group.keys" :key="key">
                    <th scope="row" class="w-[150px] !border-rule !whitespace-normal">{{ key }}</th>
                    <td>{{ does }}</td>
                  </tr>
                </tbody>
              </table>
            </section>
          </div>
        </div>
      </DialogPanel>
    </div>
  </Dialog>
</template>
