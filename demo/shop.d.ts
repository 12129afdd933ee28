import type { InstrumentKind, Role } from '@torvek/core/record';
/** The invented people of the demo shop. They sign in with one click, in demo mode alone. */
export declare const shopPeople: {
  id: string;
  name: string;
  roles: Role[];
}[];
/** Everyone's password in the demo: a witness needs one. It opens nothing outside demo mode. */
export declare const shopPassword = 'torvek-demo';
export declare const designer: string;
export declare const technician: string;
export declare const witness: string;
export interface ShopInstrument {
  id: string;
  kind: InstrumentKind;
  name: string;
  serial: string;
  calibrationDue: string | null;
}
/** The register of instruments; the insulation tester's calibration has run out in between. */
export declare const shopInstruments: ShopInstrument[];
export declare const meter: {
    id: string;
  },
  tester: {
    id: string;
  },
  scope: {
    id: string;
  },
  wrench: {
    id: string;
  };
