import { mayDo, type Person, type Role } from '@torvek/core/record';
import { useStorage } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watchEffect } from 'vue';
import { api, newId, onSignedOut } from '../api/client';

interface SessionAnswer {
  person: Person | null;
  needsOwner: boolean;
  demoPeople: Person[];
}

/** Who is signed in, and how the screen looks (kept in this browser). */
export const useSession = defineStore('session', () => {
  const person = shallowRef<Person | null>(null);
  const needsOwner = ref(false);
  const demoPeople = shallowRef<Person[]>([]);
  const known = ref(false);
  const theme = useStorage<'light' | 'dark'>('torvek.theme', 'light');
  const slateOpen = useStorage('torvek.slate', true);
  /** In Prove one step fills the screen: for the bench, and for gloves. */
  const benchMode = useStorage('torvek.bench', false);
  const may = (role: Role) => person.value !== null && mayDo(person.value.roles, role);
  const mayRecord = computed(() => may('technician'));
  const isDesigner = computed(() => may('designer'));

  function applyTheme(): void {
    watchEffect(() => document.documentElement.setAttribute('data-bs-theme', theme.value));
  }

  /** Asks the server who this is. */
  async function load(): Promise<void> {
    const answer = await api.get<SessionAnswer>('/session');
    person.value = answer.person;
    needsOwner.value = answer.needsOwner;
    demoPeople.value = answer.demoPeople;
    known.value = true;
  }

  async function enter(path: string, body: object): Promise<void> {
    person.value = (await api.post<{ person: Person | null }>(path, body)).person;
    await load();
  }

  const signIn = (name: string, password: string, code = '') =>
    enter('/session', { name, password, ...(code !== '' && { code }) });
  const signInAsDemo = (id: string) => enter('/session/demo', { person: id });
  const becomeOwner = (name: string, password: string) =>
    enter('/owner', { id: newId('person'), name, password });
  const signOut = (everywhere = false) => enter(everywhere ? '/session/end-everywhere' : '/session/end', {});
  const changePassword = (current: string, next: string, code = '') =>
    enter('/password', { current, next, ...(code !== '' && { code }) });

  onSignedOut(() => {
    person.value = null;
    known.value = false;
  });

  return {
    person,
    needsOwner,
    demoPeople,
    known,
    theme,
    slateOpen,
    benchMode,
    isDesigner,
    mayRecord,
    may,
    applyTheme,
    load,
    signIn,
    signInAsDemo,
    becomeOwner,
    signOut,
    changePassword,
  };
});
