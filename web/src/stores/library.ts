import { makeLibrary, starterLibrary, type Arrival, type Library, type OwnPart } from '@torvek/core/library';
import type { Part } from '@torvek/core/parts';
import { defineStore } from 'pinia';
import { ref, shallowRef } from 'vue';
import { api } from '../api/client';

interface Shelf {
  own: OwnPart[];
  retired: string[];
}

export interface PartUse {
  job: string;
  name: string;
  keys: string[];
}

/** The shop's library of parts: what stations choose from. */
export const useLibrary = defineStore('library', () => {
  const library = shallowRef<Library>(starterLibrary);
  const own = shallowRef<OwnPart[]>([]);
  const uses = shallowRef<PartUse[]>([]);
  const failure = ref<string | null>(null);

  function put(shelf: Shelf): void {
    own.value = shelf.own;
    library.value =
      shelf.own.length + shelf.retired.length === 0 ? starterLibrary : makeLibrary(shelf.own, shelf.retired);
  }

  async function load(): Promise<void> {
    failure.value = null;
    try {
      put(await api.get<Shelf>('/library'));
    } catch (error) {
      failure.value = error instanceof Error ? error.message : 'the library cannot be read';
    }
  }

  async function loadUses(): Promise<void> {
    uses.value = await api.get<PartUse[]>('/library/uses').catch(() => []);
  }

  /** Saves a revision. @throws ApiError with the issues of the part */
  async function save(part: Part, note: string): Promise<void> {
    put(await api.post<Shelf>('/library', { part, ...(note !== '' && { note }) }));
  }

  /** Takes parts of a file in; says what became of each. */
  async function takeIn(parts: Part[], note: string): Promise<Arrival[]> {
    const answer = await api.post<{ arrivals: Arrival[]; shelf: Shelf }>('/library/take-in', { parts, note });
    put(answer.shelf);
    return answer.arrivals;
  }

  async function retire(id: string, retired: boolean): Promise<void> {
    put(await api.patch<Shelf>(`/library/${id}`, { retired }));
  }

  return { library, own, uses, failure, load, loadUses, save, takeIn, retire };
});
