<script setup lang="ts">
// House styles on the bench: one taken over by this finish, part by part, or kept from it.

import { computed, ref, shallowRef, watch } from 'vue'

import { Cancelled } from '../../../api/client'
import { postAbout } from '../../../api/drafts'
import type { HouseStyle, JobTold, PartChange, PartKey, Proposal } from '../../../api/types'
import { runJob } from '../../../composables/jobs'
import { TAB } from '../../../composables/pictures'
import { useBench } from '../../../stores/bench'
import { useNotices } from '../../../stores/notices'
import { useStyles } from '../../../stores/styles'
import { useWork } from '../../../stores/work'
import AppDialog from '../../shared/AppDialog.vue'
import ChoiceChips from '../../shared/ChoiceChips.vue'
import KeepStyle from './KeepStyle.vue'
import StylePreview from './StylePreview.vue'

const open = defineModel<boolean>({ required: true })

const bench = useBench()
const styles = useStyles()
const notices = useNotices()
const work = useWork()
const shownId = ref<string | null>(null)
const keeping = ref(false)
const changes = shallowRef<PartChange[]>([])
const ticked = ref<PartKey[]>([])

const used = computed(() => bench.document?.style ?? null)
const shown = computed(() => styles.list.find(({ style }) => style.id === shownId.value) ?? null)
/** Whether the finish has a style that is not on the list any more. */
const isForgotten = computed(() => !!used.value && !styles.list.some(({ style }) => style.id === used.value!.id))
const isUsed = computed(() => used.value?.id === shownId.value)
const choices = computed(() => styles.list.map(({ style }) => ({ key: style.id, label: style.name })))
/** Whether taking it over would do anything. */
const isOffered = computed(() => {
  const isNewest = isUsed.value && used.value!.version === shown.value?.style.version
  const mine = changes.value.filter(({ key, is_mine }) => is_mine !== !ticked.value.includes(key))
  return ticked.value.length > 0 && !(isNewest && !mine.length)
})
const note = computed(() => {
  const kept = shown.value?.style
  if (!used.value || !kept) return ''
  if (used.value.id !== kept.id) return `This finish is in “${used.value.name}” now.`
  if (used.value.version < kept.version)
    return `This finish has version ${used.value.version}; version ${kept.version} is the newest.`
  return 'This finish is in this style.'
})

watch(open, async (now) => {
  if (!now) return
  keeping.value = false
  await styles.load()
  const usedId = isForgotten.value ? null : used.value?.id
  shownId.value = usedId ?? styles.chosen ?? styles.list[0]?.style.id ?? null
  if (!styles.list.length) keeping.value = true
})

watch([shown, () => bench.draft, open], async () => {
  if (!open.value || !shown.value || !bench.draft) return
  try {
    const { style } = shown.value
    const told = await postAbout<{ changes: PartChange[] }>(bench.draft, '/styles/changes', { size_id: bench.sizeId, style })
    if (shown.value?.style.id !== style.id) return
    changes.value = told.changes
    ticked.value = told.changes.filter(({ is_mine }) => !is_mine).map(({ key }) => key)
  } catch (error) {
    notices.tell(error)
  }
})

async function takeOver(style: HouseStyle): Promise<void> {
  open.value = false
  const finish = bench.saved?.id
  try {
    const { edit } = await work.run(`Taking over “${style.name}”`, (following) =>
      runJob<Proposal>(
        () => bench.ask<JobTold>('/styles/use', { style, put: ticked.value, channel: `${TAB}-style` }),
        following,
      ),
    )
    if (edit && bench.saved?.id === finish) await bench.edit(edit)
  } catch (error) {
    if (!(error instanceof Cancelled)) notices.tell(error)
  }
}

async function letGo(): Promise<void> {
  open.value = false
  await bench.edit({ kind: 'remove_style' })
}

/** The finish that a style was kept from is in it too. */
async function kept(style: HouseStyle): Promise<void> {
  await bench.edit({ kind: 'adopt_style', style })
  await styles.load()
  shownId.value = style.id
  keeping.value = false
  notices.say(`“${style.name}” is saved; choose on the shelf whether new photos start in it.`)
}

/** This finish may be one of those that are renewed. */
async function renew(style: HouseStyle): Promise<void> {
  if (!(await bench.settle()) || !bench.saved) return
  if (await styles.renew(style)) await bench.load(bench.saved.id).catch(notices.tell)
}
</script>

<template>
  <AppDialog v-model="open" title="House style" :width="680">
    <p v-if="isForgotten" class="forgotten">
      “{{ used!.name }}” is no longer among your house styles; this finish still has it.
      <button type="button" class="link strong" @click="letGo">Remove it from this finish</button>
    </p>
    <KeepStyle v-if="keeping" :used="used" :can-go-back="styles.list.length > 0" @kept="kept" @back="keeping = false" />
    <template v-else-if="shown">
      <div class="head">
        <ChoiceChips label="House style" :choices="choices" :chosen="shownId" @choose="(key) => (shownId = key)" />
        <button type="button" class="link strong" @click="keeping = true">Keep a style from this finish…</button>
      </div>
      <div class="body">
        <StylePreview :style-shown="shown.style" :put="ticked" />
        <div>
          <p class="soft">{{ note || 'What it would change in this finish:' }}</p>
          <ul>
            <li v-for="change in changes" :key="change.key">
              <label class="tick">
                <input v-model="ticked" type="checkbox" :value="change.key" />
                <span>
                  <b>{{ change.title }}</b>
                  <i v-if="change.is_mine">yours</i>
                  <small v-if="change.now === change.then">{{ change.now }}</small>
                  <small v-else>{{ change.now }} → {{ change.then }}</small>
                </span>
              </label>
            </li>
          </ul>
          <p v-if="changes.some(({ is_mine }) => is_mine)" class="soft">
            You changed what is marked “yours”; it stays unless you tick it.
          </p>
        </div>
      </div>
    </template>
    <template v-if="!keeping && shown" #footer>
      <button v-if="isUsed" type="button" class="action left" @click="letGo">Remove from this finish</button>
      <button v-if="shown.older_uses" type="button" class="action" @click="renew(shown.style)">
        {{ shown.older_uses === 1 ? 'Renew 1 finish' : `Renew ${shown.older_uses} finishes` }}
      </button>
      <button type="button" class="action key" :disabled="!isOffered" @click="takeOver(shown.style)">
        {{ isUsed ? 'Take it over again' : 'Take it over' }}
      </button>
    </template>
  </AppDialog>
</template>

<style scoped>
.head {
  display: flex;
  gap: 14px;
  align-items: center;
  justify-content: space-between;
  margin-bottom: 12px;
}

.head .link {
  flex: none;
}

.body {
  display: grid;
  grid-template-columns: 250px 1fr;
  gap: 18px;
}

ul {
  max-height: 46vh;
  margin: 6px 0;
  overflow: auto;
}

li {
  padding: 4px 0;
  border-bottom: 1px dashed var(--rule);
}

li small {
  display: block;
  color: var(--ink-soft);
  font-size: 12px;
  overflow-wrap: anywhere;
}

li i {
  margin-left: 6px;
  padding: 0 5px;
  border-radius: 3px;
  background: var(--paper-deep);
  font-size: 11px;
  font-style: normal;
}

.soft {
  color: var(--ink-soft);
  font-size: 12px;
}

.forgotten {
  margin-bottom: 12px;
}

.left {
  float: left;
}

.action {
  margin-left: 8px;
}
</style>
