import { stations, type Station } from '@torvek/core/document';
import { stationList } from '../stations/stations';

/** The letter after `g` for each place. */
export const stationKeys: Record<string, Station | 'jobs' | 'shop'> = {
  ...Object.fromEntries(stations.map((name) => [stationList[name].key, name])),
  j: 'jobs',
  s: 'shop',
};

/** What keys do; the list that `?` shows is made of it. */
export const keyList: [keys: string, what: string][] = [
  ['/', 'find anything in this job'],
  ...stations.map((name): [string, string] => [`g ${stationList[name].key}`, stationList[name].title]),
  ['g j', 'all jobs'],
  ['g s', 'the shop: people, instruments, backup'],
  ['n', 'next finding, at this station and then at the next'],
  ['w', 'working of the figure that has the focus, or of the last one'],
  ['?', 'this list'],
  ['Alt + the letter', 'the same from inside a field or a table'],
  ['Ctrl+Z, Ctrl+Shift+Z', 'undo, redo'],
  ['arrows, Tab, Enter', 'move in a table; Enter or typing edits, Esc takes it back'],
  ['Shift + arrows', 'select a block of a table'],
  ['Ctrl+C, Ctrl+V, Ctrl+D', 'copy, paste a block, fill down'],
  ['Delete', 'empty the selected cells'],
];

export type KeyAction = 'find' | 'next' | 'working' | 'help' | { go: Station | 'jobs' | 'shop' };

/** Turns key presses into actions: single letters outside fields and grids, with Alt inside; `g` waits for a letter. */
export function createKeyReader(now: () => number = Date.now) {
  let goneAt = -Infinity;
  const waitMs = 1500;

  return function read(key: string, inField: boolean, alt: boolean): KeyAction | null {
    const usable = alt || !inField;
    if (!usable) {
      goneAt = -Infinity;
      return null;
    }
    const letter = key.toLowerCase();
    if (now() - goneAt < waitMs) {
      goneAt = -Infinity;
      const place = stationKeys[letter];
      if (place !== undefined) return { go: place };
    }
    switch (letter) {
      case 'g':
        goneAt = now();
        return null;
      case '/':
        return 'find';
      case 'n':
        return 'next';
      case 'w':
        return 'working';
      case '?':
        return 'help';
      default:
        return null;
    }
  };
}
