import { circuitDefaults } from '../../model/document';
import { resistancePerM } from '../../model/parts';

/** Contacts, lugs and bars of both poles where the design does not say, Ω. */
export const defaultContactOhm = circuitDefaults.contactOhm;

/**
 * Resistance of a circuit out and back, Ω: cable at 20 °C and contacts.
 *
 * Source: IEC 60228
 */
export const loopOhm = (areaMm2: number, lengthM: number, parallel: number, contactOhm: number): number =>
  (2 * lengthM * resistancePerM(areaMm2, 20)) / parallel + contactOhm;
