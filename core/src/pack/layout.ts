import type { Design } from '../document';
import type { Gap } from '../figure';
import type { PartKey, PartOf } from '../parts';

/** How the pack's modules are connected: like strings of like modules, side by side. */
export interface PackLayout {
  key: PartKey;
  part: PartOf<'module'>;
  strings: number;
  modulesPerString: number;
}

type Slices = Pick<Design, 'strings' | 'modules' | 'parts'>;

/** Reads the layout from the module instances, or says why there is none to compute with. */
export function packLayout({ strings, modules, parts }: Slices): { layout: PackLayout | null; gaps: Gap[] } {
  const filled = Object.values(strings).filter((string) => string.modules.length > 0);
  const first = filled[0];
  if (first === undefined) return refuse({ kind: 'not-given', path: 'strings', label: 'modules in series' });
  const key = modules[first.modules[0]!]?.part ?? '';
  const part = parts[key];
  if (part?.kind !== 'module') return refuse({ kind: 'not-given', path: 'parts', label: 'kind of module' });
  for (const string of filled) {
    if (string.modules.some((id) => modules[id]?.part !== key)) {
      return refuse({
        kind: 'invalid',
        path: 'strings',
        label: `string ${string.tag}`,
        message: 'mixes kinds of modules; that is not computed',
      });
    }
    if (string.modules.length !== first.modules.length) {
      return refuse({
        kind: 'invalid',
        path: 'strings',
        label: `string ${string.tag}`,
        message: `has ${string.modules.length} modules where ${first.tag} has ${first.modules.length}; unlike strings must not be joined`,
      });
    }
  }
  return { layout: { key, part, strings: filled.length, modulesPerString: first.modules.length }, gaps: [] };
}

const refuse = (gap: Gap) => ({ layout: null, gaps: [gap] });
