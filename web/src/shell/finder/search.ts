/** Something the finder can lead to. */
export interface Findable {
  kind: 'station' | 'thing' | 'part' | 'figure' | 'finding' | 'entry' | 'step' | 'action';
  title: string;
  detail: string;
  /** Goes there. */
  open(): void;
}

const bare = (text: string) => text.toLowerCase().normalize('NFD').replace(/\p{M}/gu, '');

/** How well a word stands in a text: at its start, at a word's start, anywhere; 0: not at all. */
function match(text: string, word: string): number {
  const at = text.indexOf(word);
  if (at < 0) return 0;
  if (at === 0) return 3;
  return /[^\p{L}\p{N}]/u.test(text[at - 1]!) ? 2 : 1;
}

/**
 * What fits a question, best first: each of its words must stand somewhere in title or detail; accents and case do not
 * count, the title counts more.
 *
 * @param most how many at most
 */
export function find(all: readonly Findable[], question: string, most = 40): Findable[] {
  const words = bare(question)
    .split(/\s+/)
    .filter((word) => word !== '');
  if (words.length === 0) return [];
  return all
    .flatMap((one, place) => {
      const title = bare(one.title);
      const detail = bare(one.detail);
      let score = 0;
      for (const word of words) {
        const found = 4 * match(title, word) + match(detail, word);
        if (found === 0) return [];
        score += found;
      }
      // Of two that fit equally the shorter title says it more exactly.
      return [{ one, place, score: score - title.length / 200 }];
    })
    .sort((a, b) => b.score - a.score || a.place - b.place)
    .slice(0, most)
    .map(({ one }) => one);
}
