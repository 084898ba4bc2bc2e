<script setup lang="ts">
import type { VoiceCensus } from '~~/core/census/census'
import { sizeAndLeading } from '~~/core/census/voices'
import type { Wish } from '~~/core/change/registry'
import { faceName } from '~~/core/font/face'
import type { Legibility } from '~~/core/house/legibility'
import { meantGroups, typeGroups } from '~~/core/style/groups'
import { counted, grouped } from '../../desk/words'
import AdoptForm from '../../kit/AdoptForm.vue'

/** The voice that is chosen in the census: how it looks from where it is read, and what can be done about it. */
const props = defineProps<{
  voice: VoiceCensus
  /** The more frequent voice that it can be taken for. */
  twin: VoiceCensus | null
  seen: Legibility | null
}>()
const emit = defineEmits<{ plan: [wishes: Wish[]] }>()
function adopt(family: 'text' | 'paragraph', displayName: string): void {
  emit('plan', [{ type: 'adopt', family, displayName, scope: { kind: 'voice', key: props.voice.key } }])
}
</script>

<template>
  <section class="mt-4 border border-ink bg-sheet px-3 py-2.5" aria-label="The chosen voice">
    <p>
      <strong>{{ faceName(voice.family, voice.style) }} {{ sizeAndLeading(voice) }}</strong
      ><span class="text-soft"
        >, {{ counted(voice.characters, 'character')
        }}{{
          voice.settledCharacters < voice.characters
            ? `, ${grouped(voice.characters - voice.settledCharacters)} of them set by hand`
            : ''
        }}</span
      >
    </p>
    <p v-if="seen" :class="seen.enough ? 'text-soft' : 'text-ochre'">
      Its x-height spans {{ seen.degrees.toFixed(2) }}° {{ seen.from
      }}{{ seen.enough ? '.' : `; ${seen.would} pt would do.` }}
    </p>
    <div class="mt-2 flex flex-wrap items-center gap-2">
      <button
        v-if="twin"
        type="button"
        class="act"
        @click="emit('plan', [{ type: 'fold-voice', from: voice.key, to: twin.key }])"
      >
        Fold into {{ faceName(twin.family, twin.style) }} {{ sizeAndLeading(twin) }}
      </button>
      <button
        v-if="voice.settledCharacters < voice.characters"
        type="button"
        class="plain"
        @click="
          emit('plan', [
            {
              type: 'settle',
              scope: { kind: 'voice', key: voice.key },
              groups: [...typeGroups],
              keep: [...meantGroups],
              idleOnly: false,
            },
          ])
        "
      >
        Settle it
      </button>
    </div>
    <AdoptForm
      v-if="voice.settledCharacters < voice.characters"
      :key="voice.key"
      :kinds="['paragraph', 'text']"
      :whole="voice.whole"
      @adopt="adopt"
    />
  </section>
</template>
