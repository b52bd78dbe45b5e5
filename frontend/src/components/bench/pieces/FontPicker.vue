<script setup lang="ts">
// The fonts, each showing the user's own words; hovering tries one on the picture. Own fonts are
// added from files.

import { computed, onMounted, ref } from 'vue'

import type { TextPiece } from '../../../api/types'
import { useFonts } from '../../../stores/fonts'
import { useNotices } from '../../../stores/notices'

type Key = TextPiece['family']

const props = defineProps<{ family: Key; weight: number; words: string }>()
const emit = defineEmits<{ choose: [key: Key]; hover: [key: Key | null] }>()

const fonts = useFonts()
const notices = useNotices()
const open = ref(false)
const file = ref<HTMLInputElement>()
const chosen = computed(() => fonts.named(props.family))
const words = computed(() => props.words.trim().split('\n')[0]!.slice(0, 40) || 'Pebblewick')

onMounted(fonts.load)

function sample(key: string): string {
  const { weight } = props
  return `/api/fonts/${key}/sample?${new URLSearchParams({ words: words.value, weight: String(weight) })}`
}

function choose(key: Key): void {
  open.value = false
  emit('choose', key)
}

async function bring(): Promise<void> {
  const given = file.value?.files?.[0]
  if (!given) return
  const font = await fonts.add(given)
  file.value!.value = ''
  if (!font) return
  notices.say(`“${font.name}” is among the fonts now.`)
  choose(font.key)
}
</script>

<template>
  <button type="button" class="action family" :aria-expanded="open" @click="open = !open">
    <span>Font: {{ chosen?.name ?? (fonts.fonts.length ? 'not on this list' : '…') }}</span>
    <span aria-hidden="true">{{ open ? '▴' : '▾' }}</span>
  </button>
  <div v-if="open" class="offered">
    <button type="button" class="bring" @click="file?.click()">Add a TTF or OTF file</button>
    <input ref="file" type="file" accept=".ttf,.otf" class="visually-hidden" tabindex="-1" aria-label="A font file" @change="bring" />
    <ul aria-label="Fonts">
      <li v-for="{ key, name, kind } in fonts.fonts" :key="key">
        <button
          type="button"
          class="font"
          :class="{ on: key === family }"
          :aria-pressed="key === family"
          :aria-label="`${name}, ${kind}`"
          @click="choose(key)"
          @pointerenter="emit('hover', key)"
          @pointerleave="emit('hover', null)"
          @focus="emit('hover', key)"
          @blur="emit('hover', null)"
        >
          <span class="sample"><img :src="sample(key)" alt="" loading="lazy" /></span>
          <span class="called">{{ name }}</span>
        </button>
        <button
          v-if="kind === 'own'"
          type="button"
          class="forget"
          :aria-label="`Take ${name} off the list`"
          title="Take it off this list; what is set in it stays"
          @click="fonts.forget(key)"
        >
          ×
        </button>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.family {
  display: flex;
  justify-content: space-between;
  width: 100%;
  margin-top: 7px;
}

.family span:first-child {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.offered {
  margin-top: 4px;
  border: 1px solid var(--edge);
  border-radius: 4px;
  background: #ffffff;
}

.bring {
  width: 100%;
  min-height: 30px;
  padding: 4px 8px;
  border: 0;
  border-bottom: 1px solid var(--rule);
  background: none;
  font-size: 12px;
  text-align: left;
}

ul {
  max-height: 250px;
  overflow-y: auto;
}

li {
  display: flex;
}

.font {
  display: flex;
  flex: 1;
  gap: 8px;
  justify-content: space-between;
  align-items: center;
  min-width: 0;
  height: 34px;
  padding: 2px 8px;
  border: 0;
  background: none;
  font-size: 11px;
}

.forget {
  width: 28px;
  padding: 0;
  border: 0;
  background: none;
  color: var(--ink-soft);
}

.bring:hover,
.font:hover,
.forget:hover,
.font:focus-visible {
  background: var(--paper);
}

.font.on {
  box-shadow: inset 3px 0 0 var(--clover);
}

.sample {
  display: flex;
  flex: 1;
  min-width: 0;
  overflow: hidden;
}

.sample img {
  flex: none;
  height: 28px;
}

.called {
  flex: none;
  max-width: 110px;
  overflow: hidden;
  color: var(--ink-soft);
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
