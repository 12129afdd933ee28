/** Sizes of paper, pt. */
export const papers = {
  A4: { width: 595.28, height: 841.89 },
  letter: { width: 612, height: 792 },
} as const;
export type Paper = keyof typeof papers;
export const isPaper = (name: string): name is Paper => Object.hasOwn(papers, name);
