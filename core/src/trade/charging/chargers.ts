import type { Gap } from '../../ground/figure';
import { interpolate, type Table } from '../../ground/math';
import type { Design, DeviceItem, Id } from '../../model/document';
import type { SharedView } from '../../model/step';

/** A charger on the mains as it is built in: its part’s figures, and what is typed instead. */
export interface BuiltCharger {
  id: Id;
  tag: string;
  /** The phase it hangs on; all: it is made for three. */
  phase: 1 | 2 | 3 | 'all';
  maxInputA: number;
  /** On a single phase; null: it does nothing there. */
  onePhaseA: number | null;
  efficiency: Table;
  maxOutputA: number;
  minV: number;
  maxV: number;
  dcDetection: boolean;
  isolated: boolean;
  endV: number | null;
  /** At the moment it is switched on, peak, on each of its phases; null: nobody says. */
  inrushA: number | null;
}

type Slices = Pick<Design, 'devices' | 'parts'>;

export const chargerIds = ({ devices }: Pick<Design, 'devices'>): Id[] =>
  Object.keys(devices).filter((id) => devices[id]!.kind === 'charger');

/** The charger that a device is, or what is missing to know it. */
export function builtCharger(
  id: Id,
  { devices, parts }: Slices,
): { charger: BuiltCharger | null; gaps: Gap[] } {
  const device: DeviceItem = devices[id]!;
  const part = parts[device.charger ?? ''];
  const data = part?.kind === 'charger' ? part.data : undefined;
  const gaps: Gap[] = [];
  const need = <T>(value: T | undefined, path: string, label: string): T | undefined => {
    if (value === undefined)
      gaps.push({ kind: 'not-given', path: `devices.${id}.${path}`, label: `${label} of ${device.tag}` });
    return value;
  };
  const maxInputA = need(device.maxInputA ?? data?.maxInputA, 'charger', 'current from the mains');
  const maxOutputA = need(device.maxOutputA ?? data?.maxOutputA, 'charger', 'highest current into the pack');
  const efficiency: Table | undefined = need(
    device.efficiencyFraction !== undefined
      ? [[1, device.efficiencyFraction]]
      : (data?.efficiency as Table | undefined),
    'charger',
    'efficiency',
  );
  const minV = need(device.minV ?? data?.minV, 'minV', 'lowest voltage');
  const maxV = need(device.maxV ?? data?.maxV, 'maxV', 'highest voltage');
  if (
    maxInputA === undefined ||
    maxOutputA === undefined ||
    efficiency === undefined ||
    minV === undefined ||
    maxV === undefined
  )
    return { charger: null, gaps };
  const phase = device.phase ?? (data?.phases === 3 ? 'all' : 1);
  return {
    gaps,
    charger: {
      id,
      tag: device.tag,
      phase,
      maxInputA,
      // Without a part nobody says that it does nothing on one phase.
      onePhaseA:
        phase === 'all'
          ? data === undefined
            ? maxInputA
            : data.onePhaseA === undefined
              ? null
              : Math.min(data.onePhaseA, maxInputA)
          : maxInputA,
      efficiency,
      maxOutputA,
      minV,
      maxV,
      dcDetection: data?.dcDetection ?? false,
      isolated: device.isolation === undefined ? (data?.isolated ?? false) : device.isolation === 'isolated',
      endV: device.endV ?? null,
      inrushA: data?.inrushA ?? null,
    },
  };
}

/** Every charger of the design as it is built in, once per design: a device of another kind moves none of them. */
export const chargersView: SharedView<{ charger: BuiltCharger | null; gaps: Gap[] }[]> = {
  id: 'charge.chargers',
  make: (design) =>
    chargerIds(design).map((id) => {
      const { charger, gaps } = builtCharger(id, design);
      // Values alone: a table of a part is a view of it.
      return {
        charger:
          charger === null
            ? null
            : { ...charger, efficiency: charger.efficiency.map(([load, share]) => [load, share] as const) },
        gaps,
      };
    }),
};

/** How a charger hangs on a supply: its phase and what it draws there; null: it does nothing. */
export function onSupply(
  { phase, maxInputA, onePhaseA }: BuiltCharger,
  phases: 1 | 3,
): { phase: 1 | 2 | 3 | '3ph'; maxInputA: number } | null {
  if (phases === 3) return { phase: phase === 'all' ? '3ph' : phase, maxInputA };
  if (phase === 'all') return onePhaseA === null ? null : { phase: 1, maxInputA: onePhaseA };
  return phase === 1 ? { phase: 1, maxInputA } : null;
}

/** Efficiency at a share of full power. */
export const efficiencyAt = ({ efficiency }: BuiltCharger, loadFraction: number): number =>
  interpolate(efficiency, loadFraction);
