import { partKey, type PartOf } from '@torvek/core/parts';
import { computed } from 'vue';
import { useJob } from '../../stores/job';
import { useLibrary } from '../../stores/library';

/** Kinds of modules to choose from: those that the design has pinned, then the library’s. */
export function useModuleKinds() {
  const job = useJob();
  const shelf = useLibrary();
  return computed(() => {
    const pinned = Object.values(job.design.parts).filter(
      (part): part is PartOf<'module'> => part.kind === 'module',
    );
    const known = shelf.library.of('module');
    return [...pinned.filter((part) => !known.some((one) => partKey(one) === partKey(part))), ...known];
  });
}
