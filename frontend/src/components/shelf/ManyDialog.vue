<script setup lang="ts">
// Many photos finished alike: in a house style or like a finish, their words from a table.

import { computed, ref, shallowRef, watch } from 'vue'

import type { Model, Photo, PhotoToFinish, Row } from '../../api/types'
import { useShelf } from '../../stores/shelf'
import { useStyles } from '../../stores/styles'
import AppDialog from '../shared/AppDialog.vue'
import TrialPicture from './TrialPicture.vue'
import WordsGrid from './WordsGrid.vue'

const props = defineProps<{ photos: Photo[] }>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ made: [ids: string[]] }>()

const shelf = useShelf()
const styles = useStyles()
/** "style ID" or "like ID". */
const source = ref('')
const rows = shallowRef<Row[]>([])
/** The row whose picture is shown. */
const at = ref(0)

const likes = computed(() => shelf.finishes.filter(({ photo, problem }) => photo && !problem))
const columns = computed(() => {
  const [kind, id] = source.value.split(' ')
  const named =
    kind === 'style'
      ? styles.list.find(({ style }) => style.id === id)?.columns
      : likes.value.find((finish) => finish.id === id)?.columns
  return (named ?? []).filter((name) => name.toLowerCase() !== 'name')
})

const model = computed<Model>(() => {
  const [kind, id = ''] = source.value.split(' ')
  return kind === 'style' ? { style: id } : { like: id }
})
/** What will be made of the photo in the row that is shown. */
const wanted = computed<PhotoToFinish | null>(() => {
  const photo = props.photos[at.value]?.sha256
  return source.value && photo ? { photo, row: rows.value[at.value] ?? {}, ...model.value } : null
})

watch(open, async (now) => {
  if (!now) return
  await styles.load()
  rows.value = props.photos.map(() => ({}))
  at.value = 0
  const first = styles.chosen ?? styles.list[0]?.style.id
  source.value = first ? `style ${first}` : likes.value[0] ? `like ${likes.value[0].id}` : ''
})

async function make(): Promise<void> {
  open.value = false
  emit('made', await shelf.startMany(props.photos, rows.value, model.value))
}
</script>

<template>
  <AppDialog v-model="open" :title="photos.length === 1 ? 'Finish 1 photo' : `Finish ${photos.length} photos`" :width="1000">
    <p v-if="!source">
      Finish one photo first, or keep a house style from a finish; the others are then finished like it.
    </p>
    <div v-else class="split">
      <div class="words">
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
        <WordsGrid v-model="rows" v-model:at="at" :photos="photos" :columns="columns" />
      </div>
      <TrialPicture v-if="wanted" :wanted="wanted" :name="photos[at]!.name" />
    </div>
    <template #footer>
      <button type="button" class="action" @click="open = false">Cancel</button>
      <button type="button" class="action key" :disabled="!source" @click="make">
        {{ photos.length === 1 ? 'Make 1 finish' : `Make ${photos.length} finishes` }}
      </button>
    </template>
  </AppDialog>
</template>

<style scoped>
.split {
  display: flex;
  gap: 20px;
  align-items: flex-start;
}

.words {
  flex: 1;
  min-width: 0;
}

select {
  width: 100%;
  max-width: 360px;
  margin: 3px 0 14px;
}

.action {
  margin-left: 8px;
}
</style>
