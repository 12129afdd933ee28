<script setup lang="ts">
import { BModal } from 'bootstrap-vue-next/components/BModal';
import { keyList } from './keys';

const shown = defineModel<boolean>({ required: true });
</script>

<template>
  <BModal v-model="shown" title="Keys" ok-only ok-title="Close">
    <dl class="keys">
      <template v-for="[keys, what] in keyList" :key="keys">
        <dt>{{ keys }}</dt>
        <dd>{{ what }}</dd>
      </template>
    </dl>
  </BModal>
</template>

<style scoped>
.keys {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0.25rem 1.2rem;
  margin: 0;
}

dt {
  white-space: nowrap;
}

dd {
  margin: 0;
}
</style>
