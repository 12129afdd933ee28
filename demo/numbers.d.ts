/** Numbers from a seed, so that a failure can be run again (linear congruential, Numerical Recipes). */
export declare function numbersFrom(seed: number): () => number;
