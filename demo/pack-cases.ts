import type { Design } from '@torvek/core/document';

export const moduleOf = (draft: Design) => {
  const part = draft.parts[Object.values(draft.modules)[0]!.part];
  if (part?.kind !== 'module') throw new Error('no module');
  return part.data;
};

/** For each rule of the pack: what is wrong about the bus when it is raised. */
export const wrongPack: Record<string, (draft: Design) => void> = {
  'pack.ten-second-resistance': (draft) => void (draft.pack.peakCurrentA = 1),
  'pack.cell-below-minimum-at-peak': (draft) => {
    draft.pack.socForPeakFraction = 0.01;
    draft.pack.peakCurrentA = 300;
  },
  'pack.module-peak-current': (draft) => void (draft.pack.peakCurrentA = 701),
  'pack.above-device-window': (draft) => void (draft.devices['device-heater']!.maxV = 400),
  'pack.below-device-window': (draft) => void (draft.devices['device-inverter']!.minV = 289),
  'pack.device-window-wide': (draft) => void (draft.devices['device-dcdc']!.minV = 20),
  'pack.sags-below-device-window': (draft) => void (draft.devices['device-inverter']!.minV = 335),
  'pack.anchors-weak': (draft) => void (draft.boxes['box-tail']!.anchors = 2),
  'pack.no-access': (draft) => void (draft.boxes['box-tail']!.accessFrom = 'none'),
  'pack.vent': (draft) => void (draft.boxes['box-nose']!.vent = 'none'),
  'pack.box-overfull': (draft) => {
    for (const module of Object.values(draft.modules)) module.box = 'box-collector';
  },
  'pack.link-pitch-tight': (draft) => void (draft.boxes['box-left']!.linkPitchMm = 224),
  'pack.heater-cut-out': (draft) => void (draft.devices['device-heater']!.thermalCut = 'in the coil circuit'),
  'pack.heater-weak': (draft) => void (draft.devices['device-heater']!.ratedVoltageV = 440),
  'pack.box-outside': (draft) => void (draft.boxes['box-tail']!.xM = -9),
  'pack.box-low': (draft) => void (draft.boxes['box-tail']!.zM = 0.2),
  'pack.boxes-overlap': (draft) => {
    const [nose, tail] = [draft.boxes['box-nose']!, draft.boxes['box-tail']!];
    Object.assign(tail, { xM: nose.xM, yM: nose.yM, zM: nose.zM });
  },
  'pack.module-continuous-current': (draft) => void (moduleOf(draft).continuousA = 20),
  'pack.load-over-peak': (draft) => void (draft.pack.peakCurrentA = 320),
  'pack.charged-above-cell': (draft) => void (moduleOf(draft).cell.maxV = 3.9),
  'pack.module-above-touch': (draft) => void (draft.settings.touchLimitV = 40),
  'pack.warm-over-cold': (draft) => void (draft.pack.warmResistanceFactor = 2.8),
  'pack.peak-outside-window': (draft) => void (draft.pack.socForPeakFraction = 0.02),
  'pack.unlike-modules': (draft) => {
    const module = Object.values(draft.modules)[0]!;
    const other = JSON.parse(JSON.stringify(draft.parts[module.part])) as Design['parts'][string];
    other.id += '-x';
    (other.data as ReturnType<typeof moduleOf>).cell.capacityAh = 44;
    draft.parts[`${other.id}@${other.revision}`] = other;
    module.part = `${other.id}@${other.revision}`;
  },
  'pack.typical-data': (draft) => void (moduleOf(draft).typical = true),
  'pack.module-in-no-string': (draft) => void Object.values(draft.strings)[0]!.modules.pop(),
  'pack.module-in-no-box': (draft) => void delete Object.values(draft.modules)[0]!.box,
  'pack.string-empty': (draft) =>
    void (draft.strings['string-x'] = { ...Object.values(draft.strings)[0]!, tag: 'SX', modules: [] }),
  'pack.heater-over-rating': (draft) => void (draft.devices['device-heater']!.ratedVoltageV = 200),
  'pack.charge-current': (draft) => void (draft.pack.chargeA = 235),
  'pack.regen-peak': (draft) => void (draft.pack.regenPeakA = 401),
  'pack.regen-below-load': (draft) => void (draft.pack.regenPeakA = 79),
  'pack.posts-alike': (draft) => void (draft.modules['module-102']!.plusSide = 'left'),
  'pack.floor-crushed': (draft) =>
    void Object.assign(draft.boxes['box-nose']!, { floorM2: 0.1, floorKPa: 20 }),
  'pack.shelf-weak': (draft) => {
    // Two of 225 mm a level: two modules on the shelf, 63 kg at 20 g are 12.4 kN.
    Object.assign(draft.boxes['box-nose']!, { shelves: 1, shelfMm: 15, shelfN: 12300, lengthM: 0.6 });
  },
  'pack.lift-weak': (draft) => void (draft.boxes['box-tail']!.liftKg = 150),
  'pack.lift-tips': (draft) => void (draft.boxes['box-nose']!.liftSpanM = 0.2),
  'pack.lift-none': (draft) => void (draft.boxes['box-tail']!.liftPoints = 0),
};

/** What is right though it looks alike. */
export const rightPack: Record<string, (draft: Design) => void> = {
  'pack.floor-crushed': (draft) =>
    void Object.assign(draft.boxes['box-nose']!, { floorM2: 0.9, floorKPa: 200 }),
  'pack.below-device-window': (draft) => void (draft.devices['device-charger']!.minV = 288),
  'pack.link-pitch-tight': (draft) => void (draft.boxes['box-left']!.linkPitchMm = 225),
  'pack.shelf-weak': (draft) =>
    void Object.assign(draft.boxes['box-nose']!, { shelves: 1, shelfMm: 15, shelfN: 12400, lengthM: 0.6 }),
};
