<script setup lang="ts">
// Many photos finished alike: in a house style or like a finish, their words from a table.

import { computed, ref, shallowRef, watch } from 'vue'

import type { Photo, Row } from '../../api/types'
import { useShelf } from '../../stores/shelf'
import { useStyles } from '../../stores/styles'
import AppDialog from '../shared/AppDialog.vue'
import WordsGrid from './WordsGrid.vue'

const props = defineProps<{ photos: Photo[] }>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ made: [ids: string[]] }>()

const shelf = useShelf()
const styles = useStyles()
/** "style ID" or "like ID". */
const source = ref('')
const rows = shallowRef<Row[]>([])

const likes = computed(() => shelf.finishes.filter(({ photo, problem }) => photo && !problem))
const columns = computed(() => {
  const [kind, id] = source.value.split(' ')
  const named =
    kind === 'style'
      ? styles.list.find(({ style }) => style.id === id)?.columns
      : likes.value.find((finish) => finish.id === id)?.columns
  return (named ?? []).filter((name) => name.toLowerCase() !== 'name')
})

watch(open, async (now) => {
  if (!now) return
  await styles.load()
  rows.value = props.photos.map(() => ({}))
  const first = styles.chosen ?? styles.list[0]?.style.id
  source.value = first ? `style ${first}` : likes.value[0] ? `like ${likes.value[0].id}` : ''
})

async function make(): Promise<void> {
  const [kind, id] = source.value.split(' ')
  open.value = false
  emit('made', await shelf.startMany(props.photos, rows.value, { [kind!]: id }))
}
</script>

<template>
  <AppDialog v-model="open" :title="photos.length === 1 ? 'Finish 1 photo' : `Finish ${photos.length} photos`" :width="760">
    <p v-if="!source">
      Finish one photo first, or keep a house style from a finish; the others are then finished like it.
    </p>
    <template v-else>
      <label>
        <span class="field-label">Finish them</span>
        <select v-model="source" class="text-field">
          <optgroup v-if="styles.list.length" label="In a house style">
            <option v-for="{ style } in styles.list" :key="style.id" :value="`style ${style.id}`">{{ style.name }}</option>
          </optgroup>
          <optgroup v-if="likes.length" label="Like a finish">
            <option v-for="finish in likes" :key="finish.id" :value="`like ${finish.id}`">{{ finish.name }}</option>
          </optgroup>
        </select>
      </label>
      <WordsGrid v-model="rows" :photos="photos" :columns="columns" />
    </template>
    <template #footer>
      <button type="button" class="action" @click="open = false">Cancel</button>
      <button type="button" class="action key" :disabled="!source" @click="make">
        {{ photos.length === 1 ? 'Make 1 finish' : `Make ${photos.length} finishes` }}
      </button>
    </template>
  </AppDialog>
</template>

<style scoped>
select {
  width: 100%;
  max-width: 360px;
  margin: 3px 0 14px;
}

.action {
  margin-left: 8px;
}
</style>
