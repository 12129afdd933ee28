<script setup lang="ts">
import { RouterView } from 'vue-router';
import { useSession } from './stores/session';

useSession().applyTheme();
</script>

<template>
  <RouterView />
</template>
