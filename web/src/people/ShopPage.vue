<script setup lang="ts">
import { onMounted } from 'vue';
import { RouterLink } from 'vue-router';
import Icon from '../parts/Icon.vue';
import BackupBox from './BackupBox.vue';
import InstrumentTable from './InstrumentTable.vue';
import PeopleTable from './PeopleTable.vue';

/** The shop beside its jobs: people, instruments, backup. */
onMounted(() => (document.title = 'The shop · Torvek'));
</script>

<template>
  <div class="page">
    <header>
      <RouterLink class="btn btn-quiet" :to="{ name: 'jobs' }"><Icon name="jobs" /> All jobs</RouterLink>
      <h1>The shop</h1>
    </header>
    <main>
      <PeopleTable />
      <InstrumentTable />
      <BackupBox />
    </main>
  </div>
</template>

<style scoped>
.page {
  max-width: 1080px;
  margin: 0 auto;
  padding: 1.2rem 1rem;
}

header {
  display: flex;
  gap: 1rem;
  align-items: center;
  margin-bottom: 1rem;
}

main {
  display: grid;
  gap: 0.8rem;
}
</style>
