<script setup lang="ts">
import { computed } from 'vue';

/** A password or a code: typed in one way wherever it is asked for, with what is wrong with it below. */
const props = defineProps<{
  label: string;
  /** A password that is known, one that is made, a code of six digits, or one that may be a recovery code. */
  kind: 'password' | 'new-password' | 'code' | 'any-code';
  /** What is wrong, as a whole sentence. */
  problem?: string | undefined;
  /** Somebody else’s: the browser keeps out of it. */
  ofOther?: boolean;
}>();
const text = defineModel<string>({ required: true });
const isCode = computed(() => props.kind === 'code' || props.kind === 'any-code');
const autocomplete = computed(() => {
  if (props.ofOther === true) return 'off';
  if (isCode.value) return 'one-time-code';
  return props.kind === 'new-password' ? 'new-password' : 'current-password';
});
const longest = computed(
  () => ({ password: 200, 'new-password': 200, code: 12, 'any-code': 40 })[props.kind],
);
</script>

<template>
  <div class="secret">
    <label
      >{{ label
      }}<input
        v-model="text"
        class="form-control"
        :type="isCode ? 'text' : 'password'"
        :inputmode="kind === 'code' ? 'numeric' : undefined"
        :autocomplete="autocomplete"
        :maxlength="longest"
        :aria-invalid="problem !== undefined"
    /></label>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  </div>
</template>

<style scoped>
.secret {
  width: 100%;
}

label {
  width: 100%;
  font-size: 0.88rem;
}

.problem {
  margin: 0.2rem 0 0;
  color: var(--tv-stop);
  font-size: 0.88rem;
}
</style>
