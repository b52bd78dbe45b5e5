<script setup lang="ts">
// The fonts, each showing the user's own words; walking over one tries it on the picture. Own fonts
// are added from files.

import { computed, nextTick, ref, useId, watch } from 'vue'

import type { TextPiece } from '../../api/types'
import { useListbox } from '../../composables/listbox'
import { useFonts } from '../../stores/fonts'
import { useNotices } from '../../stores/notices'
import { useStyles } from '../../stores/styles'

type Key = TextPiece['family']

const props = defineProps<{ family: Key; weight: number; words: string }>()
const emit = defineEmits<{ choose: [key: Key]; hover: [key: Key | null] }>()

const fonts = useFonts()
const notices = useNotices()
const styles = useStyles()
const id = useId()
const open = ref(false)
const button = ref<HTMLButtonElement>()
const list = ref<HTMLElement>()
const file = ref<HTMLInputElement>()
const chosen = computed(() => fonts.named(props.family))
/** Those of the house styles come first. */
const offered = computed(() => {
  const isOfStyle = (key: string) => styles.list.some(({ fonts }) => fonts.includes(key))
  const named = fonts.fonts.map((font) => ({ ...font, isOfStyle: isOfStyle(font.key) }))
  return [...named.filter(({ isOfStyle }) => isOfStyle), ...named.filter(({ isOfStyle }) => !isOfStyle)]
})
const words = computed(() => props.words.trim().split('\n')[0]!.slice(0, 40) || 'Pebblewick')

const { active, startAt, keydown } = useListbox<Key>(list, () => offered.value, { choose, close })
watch(active, (key) => emit('hover', open.value ? key : null))

const loading = Promise.all([fonts.load(), styles.loadOnce()])

function sample(key: string): string {
  const { weight } = props
  return `/api/fonts/${key}/sample?${new URLSearchParams({ words: words.value, weight: String(weight) })}`
}

async function toggle(): Promise<void> {
  open.value = !open.value
  if (!open.value) return emit('hover', null)
  await loading // before that there is nothing to start at
  startAt(props.family)
  await nextTick()
  list.value?.focus()
}

function close(): void {
  open.value = false
  emit('hover', null)
  button.value?.focus()
}

function choose(key: Key): void {
  close()
  emit('choose', key)
}

async function bring(): Promise<void> {
  const given = file.value?.files?.[0]
  if (!given) return
  const font = await fonts.add(given)
  file.value!.value = ''
  if (!font) return
  notices.say(`“${font.name}” is in the list of fonts now.`)
  choose(font.key)
}
</script>

<template>
  <button ref="button" type="button" class="action family" aria-haspopup="listbox" :aria-expanded="open" @click="toggle">
    <span>Font: {{ chosen?.name ?? (fonts.fonts.length ? 'not on this list' : '…') }}</span>
    <span aria-hidden="true">{{ open ? '▴' : '▾' }}</span>
  </button>
  <div v-if="open" class="offered">
    <ul
      ref="list"
      role="listbox"
      tabindex="0"
      aria-label="Fonts"
      :aria-activedescendant="active ? `${id}-${active}` : undefined"
      @keydown="keydown"
      @pointerleave="emit('hover', null)"
    >
      <li
        v-for="{ key, name, kind, isOfStyle } in offered"
        :id="`${id}-${key}`"
        :key="key"
        role="option"
        :class="{ on: key === family, active: key === active }"
        :data-active="key === active"
        :aria-selected="key === family"
        :aria-label="isOfStyle ? `${name}, ${kind}, in a house style` : `${name}, ${kind}`"
        @click="choose(key)"
        @pointerenter="emit('hover', key)"
      >
        <span class="sample"><img :src="sample(key)" alt="" loading="lazy" /></span>
        <span class="called">{{ name }}<small v-if="isOfStyle">house style</small></span>
      </li>
    </ul>
    <button type="button" class="more" @click="file?.click()">Add a TTF or OTF file…</button>
    <input ref="file" type="file" accept=".ttf,.otf" class="visually-hidden" tabindex="-1" aria-label="A font file" @change="bring" />
    <button
      v-if="chosen?.kind === 'own'"
      type="button"
      class="more"
      data-tip="Removes it from this list; texts set in it stay as they are."
      @click="fonts.forget(chosen.key)"
    >
      Remove “{{ chosen.name }}” from the list
    </button>
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

.more {
  width: 100%;
  min-height: 30px;
  padding: 4px 8px;
  border: 0;
  border-top: 1px solid var(--rule);
  background: none;
  font-size: 12px;
  text-align: left;
}

ul {
  max-height: 250px;
  overflow-y: auto;
}

ul:focus-visible {
  outline-offset: -2px;
}

li {
  display: flex;
  gap: 8px;
  justify-content: space-between;
  align-items: center;
  height: 34px;
  padding: 2px 8px;
  font-size: 11px;
  cursor: pointer;
}

.more:hover,
li:hover,
li.active {
  background: var(--paper-deep);
}

li.on {
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
  text-align: right;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.called small {
  display: block;
  color: var(--clover);
  font-size: 10px;
}
</style>
