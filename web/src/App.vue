<script setup lang="ts">
import { watch } from 'vue';
import { RouterView, useRouter } from 'vue-router';
import CallBack from './shell/CallBack.vue';
import { useSession } from './stores/session';

const session = useSession();
const router = useRouter();
session.applyTheme();

// A session that ended while a page was open: sign in and come back to it.
watch(
  () => session.person,
  (person, before) => {
    const at = router.currentRoute.value;
    if (person === null && before !== null && at.name !== 'sign-in')
      void router.push({ name: 'sign-in', query: { to: at.fullPath } });
  },
);
</script>

<template>
  <RouterView />
  <CallBack v-if="session.person !== null" />
</template>
