import { useStorage } from '@vueuse/core';
import { defineStore } from 'pinia';
import { watchEffect } from 'vue';

/** Who works here, and how the screen looks; kept in this browser. */
export const useSession = defineStore('session', () => {
  const person = useStorage('torvek.person', '');
  const theme = useStorage<'light' | 'dark'>('torvek.theme', 'light');
  const slateOpen = useStorage('torvek.slate', true);

  function applyTheme(): void {
    watchEffect(() => document.documentElement.setAttribute('data-bs-theme', theme.value));
  }

  /** The name that changes and entries carry. */
  const signature = () => person.value.trim() || 'Workshop';

  return { person, theme, slateOpen, applyTheme, signature };
});
