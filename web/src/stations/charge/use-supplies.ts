import type { StationAnswer, SupplyAnswer } from '@torvek/core/charging';
import { removeInlet, type Design, type Id, type InletItem, type SupplyItem } from '@torvek/core/document';
import { unpinUnused } from '@torvek/core/pack';
import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { newId } from '../../api/client';
import { useJob } from '../../stores/job';

/** The supplies of one side, the one that is looked at by the address, and what is done to supplies and inlets as such. */
export function useSupplies(side: 'mains' | 'station' | 'all') {
  const job = useJob();
  const route = useRoute();
  const router = useRouter();
  const supplies = computed(() => job.design.supplies ?? {});
  const ids = computed(() =>
    Object.keys(supplies.value).filter(
      (id) => side === 'all' || (supplies.value[id]!.kind === 'station') === (side === 'station'),
    ),
  );
  const asked = computed(() => {
    if (typeof route.query.supply === 'string') return route.query.supply;
    const [root, id = ''] = typeof route.query.at === 'string' ? route.query.at.split('.') : [];
    return root === 'supplies' ? id : '';
  });
  const supplyId = computed(() => (ids.value.includes(asked.value) ? asked.value : (ids.value[0] ?? '')));
  const supply = computed((): SupplyItem | undefined => supplies.value[supplyId.value]);
  const inlets = computed(() => job.design.inlets ?? {});
  const inletIds = computed(() =>
    Object.keys(inlets.value).filter(
      (id) => side === 'all' || inlets.value[id]!.current === 'both' || inlets.value[id]!.current === side,
    ),
  );
  const pick = (id: Id) => void router.replace({ query: { ...route.query, at: undefined, supply: id } });
  const runOf = (id: Id): unknown =>
    (supplies.value[id]?.kind === 'station'
      ? job.evaluation.runs[`charge.station:${id}`]
      : job.evaluation.runs[`charge.supply:${id}`]
    )?.result;
  const mainsAnswer = (id: Id) => (runOf(id) as SupplyAnswer | undefined) ?? null;
  const stationAnswer = (id: Id) => (runOf(id) as StationAnswer | undefined) ?? null;

  function add(kind: SupplyItem['kind']): void {
    const id = newId('supply');
    job.change('Supply added', (draft) => {
      const all = (draft.supplies ??= {});
      const count = Object.keys(all).length + 1;
      all[id] = { tag: kind === 'station' ? `Station ${count}` : `Supply ${count}`, kind };
    });
    pick(id);
  }
  function remove(id: Id): void {
    job.change(`${supplies.value[id]?.tag ?? ''} removed`, (draft: Design) => {
      delete draft.supplies?.[id];
      unpinUnused(draft);
    });
  }
  function addInlet(current: InletItem['current']): void {
    const id = newId('inlet');
    job.change('Inlet added', (draft) => {
      const all = (draft.inlets ??= {});
      all[id] = { tag: `Inlet ${Object.keys(all).length + 1}`, current };
    });
  }
  function removeOneInlet(id: Id): void {
    job.change(`${inlets.value[id]?.tag ?? ''} removed`, (draft: Design) => {
      removeInlet(draft, id);
      unpinUnused(draft);
    });
  }
  return {
    supplies,
    ids,
    supplyId,
    supply,
    inlets,
    inletIds,
    pick,
    mainsAnswer,
    stationAnswer,
    add,
    remove,
    addInlet,
    removeOneInlet,
  };
}

export const yesNo = [
  { value: true, text: 'yes' },
  { value: false, text: 'no' },
];
