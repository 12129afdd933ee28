export interface Notices {
  packages: { name: string; version: string; license: string; text?: number }[];
  texts: string[];
}
export function shippedPackages(lock: unknown): { place: string; name: string; version: string }[];
export function notices(): Notices;
export function noticesFile(): string;
