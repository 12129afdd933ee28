<script setup lang="ts">
import Icon from './Icon.vue';

/** Takes a row of a grid away; the grid's own keys reach it. */
defineProps<{ name: string }>();
const emit = defineEmits<{ remove: [] }>();
</script>

<template>
  <button
    type="button"
    tabindex="-1"
    class="btn btn-quiet btn-sm"
    :aria-label="`Remove ${name}`"
    @click="emit('remove')"
  >
    <Icon name="trash" :size="13" />
  </button>
</template>
