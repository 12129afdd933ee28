/** Numbers from a seed, so that a failure can be run again (linear congruential, Numerical Recipes). */
export function numbersFrom(seed: number): () => number {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
}
