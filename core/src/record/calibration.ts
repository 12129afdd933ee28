/** The calendar day (YYYY-MM-DD) of an instant in an IANA zone; without one, in the zone of this machine. */
export function dayIn(instant: string, zone?: string): string {
  return new Intl.DateTimeFormat('en-CA', {
    ...(zone !== undefined && { timeZone: zone }),
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
  }).format(new Date(instant));
}

/**
 * Whether a calibration had run out on a day: it holds through its own.
 *
 * @param calibrationDue day (YYYY-MM-DD); null: none is kept, and none runs out
 */
export const isOverdue = (calibrationDue: string | null, day: string): boolean =>
  calibrationDue !== null && day > calibrationDue;
