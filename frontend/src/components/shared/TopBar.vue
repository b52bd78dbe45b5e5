<script setup lang="ts">
import BrandMark from './BrandMark.vue'
</script>

<template>
  <header class="top on-dark">
    <BrandMark />
    <slot></slot>
  </header>
</template>

<style>
.top {
  display: flex;
  gap: 12px;
  align-items: center;
  min-height: 46px;
  padding: 4px 14px;
  background: var(--ink);
  color: var(--cream);
}

@media (max-width: 760px) {
  .top {
    flex-wrap: wrap;
    gap: 4px 8px;
  }
}

.top .spring {
  flex: 1;
}

.top button {
  min-height: 28px;
  padding: 5px 10px;
  border: 0;
  border-radius: 4px;
  background: none;
  color: var(--cream);
  font-weight: 500;
  white-space: nowrap;
}

.top button:hover:not(:disabled) {
  background: rgb(255 255 255 / 12%);
}

.top button:disabled {
  color: #8b9799;
}

.top .edged {
  box-shadow: inset 0 0 0 1px #6b7a7f;
}

.top button.key {
  padding: 6px 16px;
  background: var(--paper);
  color: var(--ink);
  font-weight: 600;
}

.top button.key:hover {
  background: #ffffff;
}
</style>
