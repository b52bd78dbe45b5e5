<script setup lang="ts">
// The table of words: a row for each photo, a column for each {name} in the words. Typed, pasted
// from a spreadsheet, or read from a file.

import { computed, ref } from 'vue'

import { post, upload } from '../../api/client'
import type { Block, Photo, Row, TableRead } from '../../api/types'
import { useNotices } from '../../stores/notices'

const props = defineProps<{
  photos: Photo[]
  /** The columns that the words name. */
  columns: string[]
}>()
const rows = defineModel<Row[]>({ required: true })
/** The row that is being worked on. */
const at = defineModel<number>('at', { required: true })

const notices = useNotices()
const picker = ref<HTMLInputElement>()
const problem = ref('')
/** Columns that only the table has. */
const others = ref<string[]>([])

const shown = computed(() => [...props.columns, ...others.value])

function type(row: number, column: string, text: string): void {
  rows.value = rows.value.map((cells, number) => (number === row ? { ...cells, [column]: text } : cells))
}

/** A block of cells goes to the right and down from where it is pasted; a table with a head, wherever. */
async function paste(event: ClipboardEvent, row: number, column: number): Promise<void> {
  const text = event.clipboardData?.getData('text/plain') ?? ''
  if (!/[\t\n]/.test(text.trimEnd())) return
  event.preventDefault()
  try {
    const lines = (await post<Block>('/tables/cells', { text })).cells
    const names = ['file', ...props.columns].map((name) => name.toLowerCase())
    if (lines[0]?.some((cell) => names.includes(cell.toLowerCase()))) return await take(text)
    rows.value = rows.value.map((cells, number) => {
      const pasted = lines[number - row] ?? []
      const named = pasted.map((cell, place) => [shown.value[column + place], cell])
      return { ...cells, ...Object.fromEntries(named.filter(([name]) => name)) }
    })
    problem.value = ''
  } catch (error) {
    problem.value = notices.inWords(error)
  }
}

/** Fill the table from text whose first line names the columns. */
async function take(text: string): Promise<void> {
  try {
    const read = await post<TableRead>('/tables/rows', { text, photos: props.photos.map(({ name }) => name) })
    const known = new Map(props.columns.map((name) => [name.toLowerCase(), name]))
    const called = (name: string) => known.get(name.toLowerCase()) ?? name
    rows.value = read.rows.map((cells) =>
      Object.fromEntries(Object.entries(cells).map(([name, cell]) => [called(name), cell])),
    )
    others.value = read.columns.map(called).filter((name) => !props.columns.includes(name))
    problem.value = ''
  } catch (error) {
    problem.value = notices.inWords(error)
  }
}

async function bring(): Promise<void> {
  const file = picker.value?.files?.[0]
  if (picker.value) picker.value.value = ''
  if (!file) return
  try {
    await take((await upload<{ text: string }>('/tables/text', file)).text)
  } catch (error) {
    problem.value = notices.inWords(error)
  }
}
</script>

<template>
  <p class="soft">
    <template v-if="columns.length">
      Their words have {{ columns.length === 1 ? 'a column' : 'columns' }} to fill. Type, paste from a spreadsheet, or
    </template>
    <template v-else>
      Words in braces, such as {price}, become columns here. Each photo’s {name} is its file’s. Or
    </template>
    <button type="button" class="link" @click="picker?.click()">take a CSV file…</button>
    <input ref="picker" type="file" accept=".csv,.tsv,.txt" class="visually-hidden" tabindex="-1" aria-label="A table" @change="bring" />
  </p>
  <p v-if="problem" class="problem" role="status"><i class="check-light look"></i>{{ problem }}</p>
  <div class="table">
    <table>
      <thead>
        <tr>
          <th scope="col">Photo</th>
          <th v-for="column in shown" :key="column" scope="col">{{ column }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(photo, row) in photos" :key="photo.sha256" :class="{ at: row === at }" @focusin="at = row">
          <th scope="row">
            <button type="button" :aria-pressed="row === at" :title="photo.name" @click="at = row">
              <img :src="`/api/photos/${photo.sha256}/thumbnail?height=64`" alt="" />
              <span>{{ photo.name }}</span>
            </button>
          </th>
          <td v-for="(column, place) in shown" :key="column">
            <input
              class="text-field"
              :value="rows[row]?.[column] ?? ''"
              :aria-label="`${column} of ${photo.name}`"
              maxlength="1000"
              autocomplete="off"
              @input="type(row, column, ($event.target as HTMLInputElement).value)"
              @paste="paste($event, row, place)"
            />
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.soft {
  margin-bottom: 8px;
  color: var(--ink-soft);
}

.problem {
  display: flex;
  gap: 8px;
  align-items: center;
  margin-bottom: 8px;
  color: var(--persimmon);
}

.table {
  max-height: 44vh;
  overflow: auto;
}

table {
  width: 100%;
  border-collapse: collapse;
}

thead th {
  padding: 4px 6px;
  border-bottom: 2px solid var(--ink);
  font-weight: 600;
  text-align: left;
}

tbody th {
  padding: 3px 6px 3px 0;
  font-weight: 400;
}

tbody th button {
  display: flex;
  gap: 8px;
  align-items: center;
  max-width: 220px;
  padding: 0;
  border: 0;
  background: none;
  text-align: left;
}

tr.at {
  background: var(--clover-pale);
}

tbody th span {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

img {
  flex: none;
  width: 42px;
  height: 32px;
  object-fit: cover;
}

td {
  padding: 2px 3px;
}

td input {
  width: 100%;
  min-width: 90px;
}
</style>
