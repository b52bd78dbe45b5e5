<script setup lang="ts">
import { ElDialog } from 'element-plus'

import { useOpenDialog } from '../../composables/dialogs'

defineProps<{ title: string; width: number }>()
const open = defineModel<boolean>({ required: true })

useOpenDialog(open)
</script>

<!-- The section keeps the dialog's own header from counting as the page's banner. -->
<template>
  <section>
    <ElDialog v-model="open" :title="title" :width="width" align-center destroy-on-close>
      <slot></slot>
      <template v-if="$slots.footer" #footer><slot name="footer"></slot></template>
    </ElDialog>
  </section>
</template>
