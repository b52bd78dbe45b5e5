<script setup lang="ts">
import { ElDialog } from 'element-plus'
import { useTemplateRef } from 'vue'

import { useOpenDialog } from '../../composables/dialogs'

const FIELDS = 'input:not([type=checkbox]):not([type=radio]):not([type=range]), textarea'

const { asks = true } = defineProps<{
  title: string
  width: number
  /** Whether it asks for something at once. */
  asks?: boolean
}>()
const open = defineModel<boolean>({ required: true })

const content = useTemplateRef<HTMLElement>('content')

useOpenDialog(open)

/** A dialog that asks for something opens with the cursor in its first field, unless someone has
 * gone on meanwhile. */
function goToField(): void {
  if (!asks || content.value?.contains(document.activeElement)) return
  const field = content.value?.querySelector<HTMLInputElement>(FIELDS)
  field?.focus()
  field?.select()
}
</script>

<!-- The section keeps the dialog's own header from counting as the page's banner. -->
<template>
  <section>
    <ElDialog v-model="open" :title="title" :width="width" align-center destroy-on-close @opened="goToField">
      <div ref="content"><slot></slot></div>
      <template v-if="$slots.footer" #footer><slot name="footer"></slot></template>
    </ElDialog>
  </section>
</template>
