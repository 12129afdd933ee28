<script setup lang="ts">
import { computed, onMounted, ref, shallowRef } from 'vue';
import { RouterLink } from 'vue-router';
import Icon from '../parts/Icon.vue';

/** The packages that Torvek is made of, by others, each with its licence. */
interface Package {
  name: string;
  version: string;
  license: string;
  text?: number;
}
const all = shallowRef<{ packages: Package[]; texts: string[] } | null>(null);
const failed = ref(false);
const words = ref('');
const listed = computed(() => {
  const asked = words.value.trim().toLowerCase();
  return (all.value?.packages ?? []).filter((one) =>
    `${one.name} ${one.license}`.toLowerCase().includes(asked),
  );
});
onMounted(async () => {
  document.title = 'What others wrote · Torvek';
  try {
    all.value = (await import('virtual:notices')).default;
  } catch {
    failed.value = true;
  }
});
</script>

<template>
  <div class="page">
    <header>
      <RouterLink class="btn btn-quiet" :to="{ name: 'jobs' }"><Icon name="jobs" /> All jobs</RouterLink>
      <h1>What others wrote</h1>
    </header>
    <main class="sheet-card">
      <p class="soft">
        Torvek is built on the work of others. These are the packages that are served or run on the server; a
        press on one shows its licence.
      </p>
      <p v-if="failed" class="problem" role="alert">
        The list could not be loaded: try again when the server is reached.
      </p>
      <p v-else-if="all === null" role="status">Reading the list …</p>
      <template v-else>
        <div class="asks">
          <input
            v-model="words"
            class="form-control"
            type="search"
            maxlength="80"
            placeholder="a package or a licence"
            aria-label="Search in packages"
          />
          <span class="soft" role="status">{{ listed.length }} of {{ all.packages.length }}</span>
        </div>
        <ul>
          <li v-for="one in listed" :key="`${one.name} ${one.version}`" :data-package="one.name">
            <details>
              <summary>
                <b>{{ one.name }}</b> <span class="soft">{{ one.version }}</span>
                <span class="licence">{{ one.license }}</span>
              </summary>
              <pre v-if="one.text !== undefined" tabindex="0">{{ all.texts[one.text] }}</pre>
              <p v-else class="soft">
                Its package carries no text of its own; it names this licence: {{ one.license }}.
              </p>
            </details>
          </li>
        </ul>
      </template>
    </main>
  </div>
</template>

<style scoped>
.page {
  max-width: 860px;
  margin: 0 auto;
  padding: 1.2rem 1rem;
}

header,
.asks {
  display: flex;
  gap: 1rem;
  align-items: center;
  margin-bottom: 0.8rem;
}

.asks input {
  max-width: 20rem;
}

ul {
  list-style: none;
  padding: 0;
  margin: 0;
}

li {
  border-bottom: 1px solid var(--tv-line);
}

summary {
  padding: 0.3rem 0;
  cursor: pointer;
}

.licence {
  float: right;
}

pre {
  white-space: pre-wrap;
  max-height: 22rem;
  overflow: auto;
  font-size: 0.82rem;
}

.problem {
  color: var(--tv-stop);
}
</style>
