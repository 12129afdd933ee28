import type { Design, Id } from '../../model/document';

/** What a charge controller draws, asleep and awake, A. */
export interface ControllerLoad {
  id: Id;
  tag: string;
  when: 'always' | 'charging';
  currentA: number;
}

/** Charge controllers sleep on the battery for ever, and draw more while they charge: loads that nobody types. */
export function controllerLoads({ inlets = {}, parts }: Pick<Design, 'inlets' | 'parts'>): ControllerLoad[] {
  return Object.entries(inlets).flatMap(([id, { tag, controller }]): ControllerLoad[] => {
    const part = parts[controller ?? ''];
    if (part?.kind !== 'controller') return [];
    const { standbyA, awakeA } = part.data;
    return [
      { id: `${id}/asleep`, tag: `Charge controller of ${tag}`, when: 'always', currentA: standbyA },
      {
        id: `${id}/awake`,
        tag: `Charge controller of ${tag}, awake`,
        when: 'charging',
        currentA: Math.max(awakeA - standbyA, 0),
      },
    ];
  });
}
