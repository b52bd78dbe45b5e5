<script setup lang="ts">
import { ElDropdown, ElDropdownItem, ElDropdownMenu } from 'element-plus'
import { computed, ref } from 'vue'

import { useBench } from '../../../stores/bench'
import SizeSettings from './SizeSettings.vue'

const props = defineProps<{ place: number }>()

const bench = useBench()
const showSettings = ref(false)
const last = computed(() => bench.document!.sizes.length - 1)

function act(what: string): void {
  if (what === 'settings') showSettings.value = true
  else if (what === 'duplicate') void bench.edit({ kind: 'duplicate_size' })
  else if (what === 'remove') void bench.edit({ kind: 'remove_size' })
  else void bench.edit({ kind: 'place_size', place: props.place + (what === 'up' ? -1 : 1) })
}
</script>

<template>
  <div class="menu">
    <ElDropdown trigger="click" placement="bottom-end" @command="act">
      <button type="button" aria-label="This size: name, order, copy, remove" data-tip="Name, order, copy, remove">
        <svg width="14" height="14" viewBox="0 0 14 14" aria-hidden="true">
          <path d="M3 7h.01M7 7h.01M11 7h.01" stroke="currentColor" stroke-width="2.4" stroke-linecap="round" />
        </svg>
      </button>
      <template #dropdown>
        <ElDropdownMenu>
          <ElDropdownItem command="settings">Name and displayed width…</ElDropdownItem>
          <ElDropdownItem command="duplicate">Duplicate</ElDropdownItem>
          <ElDropdownItem command="up" :disabled="place === 0">Move up</ElDropdownItem>
          <ElDropdownItem command="down" :disabled="place === last">Move down</ElDropdownItem>
          <ElDropdownItem command="remove" divided :disabled="last === 0">Remove</ElDropdownItem>
        </ElDropdownMenu>
      </template>
    </ElDropdown>
    <SizeSettings v-model="showSettings" />
  </div>
</template>

<style scoped>
.menu {
  position: absolute;
  top: 4px;
  right: 4px;
}

button {
  display: grid;
  place-items: center;
  width: 24px;
  height: 24px;
  padding: 0;
  border: 0;
  border-radius: 4px;
  background: none;
}

button:hover {
  background: var(--paper-deep);
}
</style>
