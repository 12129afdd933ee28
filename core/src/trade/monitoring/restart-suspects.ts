import type { Design, Id } from '../../model/document';
import type { HuntSuspect } from './hunt';
import { boardsOf } from './map-inputs';

type Slices = Pick<Design, 'boards' | 'strings' | 'modules' | 'boxes' | 'sensors'>;

/**
 * What may make a monitoring unit restart: whoever looks on, its feed and ground, its output, then links, sensors and boards one by
 * one. Where boards are the donors’ own and have no place in the design, those of a box stand for it.
 */
export function restartSuspects(design: Slices): HuntSuspect[] {
  const { boards = {}, strings, modules, boxes, sensors = {} } = design;
  const own: HuntSuspect[] = [];
  const chains = Object.keys(strings).map((string) => boardsOf({ boards }, string));
  for (const chain of chains)
    chain.slice(1).forEach(([id, { tag }], i) => {
      const [before, { tag: from }] = chain[i]!;
      own.push({
        id: `link:${before}/${id}`,
        name: `link ${from} to ${tag}`,
        how: `End the chain at ${from}: the link unplugged behind it, the master told how many boards there are.`,
      });
    });
  const sensed = new Set(Object.values(sensors).map(({ board }) => board));
  for (const chain of chains)
    for (const [id, { tag }] of chain) {
      if (sensed.has(id))
        own.push({
          id: `sensors:${id}`,
          name: `sensors of ${tag}`,
          how: `Sensor plug of ${tag} out, resistors of a warm day in its place.`,
        });
    }
  for (const chain of chains)
    for (const [id, { tag }] of chain)
      own.push({
        id: `board:${id}`,
        name: tag,
        how: `Sense plug of ${tag} out, its link led past it, the master told so.`,
      });
  if (own.length === 0) {
    const used = new Set(
      Object.values(strings).flatMap((one) => one.modules.map((id: Id) => modules[id]?.box)),
    );
    for (const [id, { tag }] of Object.entries(boxes))
      if (used.has(id))
        own.push({
          id: `box:${id}`,
          name: `boards in ${tag}`,
          how: `Supply and link of ${tag} unplugged, the master told how many modules there are.`,
        });
  }
  return [
    {
      id: 'observer',
      name: 'the laptop or tester that looks on',
      how: 'Its adapter unplugged; count restarts by a lamp or by the log that is read afterwards.',
    },
    { id: 'supply', name: 'its supply and fuse', how: 'Fed from a bench supply of its own, with a fuse.' },
    {
      id: 'ground',
      name: 'its ground',
      how: 'A wire of its own from its ground pin to the battery’s minus.',
    },
    {
      id: 'output',
      name: 'what its output drives',
      how: 'Plug of the output pulled: no coil hangs on it.',
    },
    ...own,
  ];
}
