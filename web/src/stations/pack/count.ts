/** A whole number from 1 to what a vehicle can hold; null: it is none. */
export function countOf(text: string, most: number): number | null {
  const value = Number(text.trim());
  return Number.isInteger(value) && value >= 1 && value <= most ? value : null;
}
