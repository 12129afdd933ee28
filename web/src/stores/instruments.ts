import { dayIn, isOverdue, type InstrumentKind } from '@torvek/core/record';
import { defineStore } from 'pinia';
import { ref, shallowRef } from 'vue';
import { api } from '../api/client';

export interface RegisteredInstrument {
  id: string;
  kind: InstrumentKind;
  name: string;
  serial: string;
  calibrationDue: string | null;
  retired: boolean;
}

/** The shop's register of instruments. */
export const useInstruments = defineStore('instruments', () => {
  const all = shallowRef<RegisteredInstrument[]>([]);
  const failure = ref<string | null>(null);

  async function load(): Promise<void> {
    failure.value = null;
    try {
      all.value = await api.get<RegisteredInstrument[]>('/instruments');
    } catch (error) {
      failure.value = error instanceof Error ? error.message : 'the register cannot be read';
    }
  }

  /** Those of a kind that are in use. */
  const ofKind = (kind: InstrumentKind) => all.value.filter((one) => one.kind === kind && !one.retired);

  /** Whether the calibration has run out today, in a zone; the server judges each entry by itself. */
  const overdueToday = ({ calibrationDue }: RegisteredInstrument, zone?: string) =>
    isOverdue(calibrationDue, dayIn(new Date().toISOString(), zone));

  return { all, failure, load, ofKind, isOverdue: overdueToday };
});
