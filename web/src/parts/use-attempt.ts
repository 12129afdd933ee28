import { ref } from 'vue';

/** One piece of recording at a time: whether it is under way, and what it came to in words. */
export function useAttempt() {
  const busy = ref(false);
  const said = ref<string | null>(null);
  /** @returns whether it was done; otherwise what kept it from that is said */
  async function attempt(work: () => Promise<string>): Promise<boolean> {
    if (busy.value) return false;
    busy.value = true;
    said.value = null;
    try {
      said.value = await work();
      return true;
    } catch (error) {
      said.value = `Not recorded: ${error instanceof Error ? error.message : 'unknown reason'}`;
      return false;
    } finally {
      busy.value = false;
    }
  }
  return { busy, said, attempt };
}
export type Attempt = ReturnType<typeof useAttempt>;
