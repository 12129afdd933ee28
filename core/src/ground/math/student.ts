/**
 * Probability that |T| of Student’s distribution stays below t.
 *
 * Source: Abramowitz and Stegun 26.7.3 and 26.7.4, exact for whole degrees of freedom.
 */
export function studentWithin(t: number, degrees: number): number {
  const theta = Math.atan(t / Math.sqrt(degrees));
  const cos2 = Math.cos(theta) ** 2;
  const odd = degrees % 2 === 1;
  let term = odd ? Math.cos(theta) : 1;
  let sum = degrees === 1 ? 0 : term;
  for (let k = odd ? 3 : 2; k < degrees; k += 2) {
    term *= ((k - 1) / k) * cos2;
    if (k <= degrees - 2) sum += term;
  }
  return odd ? (2 / Math.PI) * (theta + Math.sin(theta) * sum) : Math.sin(theta) * sum;
}

/** The t that |T| stays below with this probability, by bisection. */
export function studentQuantile(within: number, degrees: number): number {
  let low = 0;
  let high = 1;
  while (studentWithin(high, degrees) < within) high *= 2;
  for (let i = 0; i < 80; i += 1) {
    const middle = (low + high) / 2;
    if (studentWithin(middle, degrees) < within) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
