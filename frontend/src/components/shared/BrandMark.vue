<template>
  <span class="brand">
    <svg width="22" height="22" viewBox="0 0 22 22" aria-hidden="true">
      <rect x="1.5" y="1.5" width="19" height="19" rx="2" fill="none" stroke="#EDE8DB" stroke-width="1.6" />
      <g fill="#5FBF93">
        <circle cx="8.4" cy="8.4" r="3.1" />
        <circle cx="13.6" cy="8.4" r="3.1" />
        <circle cx="8.4" cy="13.6" r="3.1" />
        <circle cx="13.6" cy="13.6" r="3.1" />
      </g>
    </svg>
    Lucky Margin
  </span>
</template>

<style scoped>
.brand {
  display: flex;
  gap: 9px;
  align-items: center;
  font: 600 17px var(--heading);
  letter-spacing: 0.2px;
  white-space: nowrap;
}
</style>
