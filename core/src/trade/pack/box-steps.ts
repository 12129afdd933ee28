import { figureId, type Check, type Figure, type Gap } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import { packDefaults, type Id } from '../../model/document';
import { judge, type Reader, type StepDefinition } from '../../model/step';
import { gravityMPerS2 } from '../vehicle';
import { roomOf } from './arrangement';
import { filledBox, type FilledBox } from './box-content';
import { boxRules } from './box-rules';
import { mostModules } from './fit';

/** A pothole presses with so many times the weight. */
const potholeG = 2;

/** A box as a thing that is built: what holds it, who reaches into it, whether it breathes, whether its modules fit. */
export const boxStep: StepDefinition = {
  id: 'pack.box',
  version: 1,
  subjects: (design) => Object.keys(design.boxes),
  compute(subject, read) {
    const filled = filledBox(subject, read);
    const { box, content, data, fullKg: massKg, noMass, noSize, noSlots, need: missing } = filled;
    const at = `boxes.${subject}`;
    const anchorG = read.at('settings', 'anchorG');
    const anchorGaps: Gap[] = [
      ...noMass,
      ...(anchorG === undefined
        ? [{ kind: 'not-given' as const, path: 'settings.anchorG', label: 'g-load of the local rule' }]
        : []),
    ];
    const anchorGiven = [
      ...missing(box.anchors, 'anchors', 'fasteners'),
      ...missing(box.anchorN, 'anchorN', 'force of a fastener'),
    ];
    const wantedN = massKg * gravityMPerS2 * (anchorG ?? 0);
    const holdsN = (box.anchors ?? 0) * (box.anchorN ?? 0);
    const figures: Figure[] = [
      {
        id: figureId('pack.box', subject, 'anchorForceN'),
        label: 'Force on the anchors',
        unit: 'N',
        value: anchorGaps.length > 0 ? null : wantedN,
        gaps: anchorGaps,
        working:
          anchorGaps.length > 0
            ? []
            : [
                {
                  symbol: 'F',
                  label: 'Force on the anchors',
                  formula: 'm·g·n',
                  inputs: [
                    { symbol: 'm', value: massKg, unit: 'kg', origin: { kind: 'document', path: at } },
                    { symbol: 'g', value: gravityMPerS2, unit: 'm/s²' },
                    {
                      symbol: 'n',
                      value: anchorG!,
                      unit: '',
                      origin: { kind: 'document', path: 'settings.anchorG' },
                    },
                  ],
                  value: wantedN,
                  unit: 'N',
                  source: 'Mass times the g-load that the local rule asks for',
                },
              ],
      },
      roomFigure(subject, read, filled),
    ];
    const widest = Math.max(0, ...data.map(({ widthMm }) => widthMm));
    const checks: Check[] = [
      judge(
        boxRules.anchors,
        [subject],
        [...anchorGaps, ...anchorGiven],
        holdsN < wantedN
          ? `${box.tag}: ${formatNumber(box.anchors ?? 0)} fasteners hold ${formatNumber(holdsN / 1000)} kN; ${formatNumber(massKg, 4)} kg at ${formatNumber(anchorG ?? 0)} g ask for ${formatNumber(wantedN / 1000)} kN.`
          : null,
        [
          { label: 'force asked', value: wantedN, unit: 'N' },
          { label: 'force held', value: holdsN, unit: 'N' },
          { label: 'fasteners', value: box.anchors ?? 0, unit: '' },
          { label: 'mass', value: massKg, unit: 'kg' },
          { label: 'g-load', value: anchorG ?? 0, unit: 'g' },
        ],
      ),
      judge(
        boxRules.access,
        [subject],
        missing(box.accessFrom, 'accessFrom', 'access'),
        box.accessFrom === 'none'
          ? `No hand reaches ${box.tag} once it is in: its ${data.length} modules can be served only by taking it out.`
          : null,
        [{ label: 'modules', value: data.length, unit: '' }],
      ),
      judge(
        boxRules.vent,
        [subject],
        missing(box.vent, 'vent', 'vent'),
        box.vent === 'filtered' || box.vent === undefined
          ? null
          : `${box.tag}, ${formatNumber(massKg, 4)} kg, ${box.vent === 'none' ? 'has no vent' : 'has a vent without a filter'}.`,
        [{ label: 'mass', value: massKg, unit: 'kg' }],
      ),
    ];
    if (data.length > 0) {
      checks.push(
        judge(
          boxRules.overfull,
          [subject],
          noSize,
          content.sized && content.fit === null
            ? `${data.length} modules do not fit into ${box.tag} (${formatNumber((box.lengthM ?? 0) * 1000)} × ${formatNumber((box.widthM ?? 0) * 1000)} × ${formatNumber((box.heightM ?? 0) * 1000)} mm) in rows${data.some((one) => one.onSide === true || one.onEnd === true) ? '' : ', upright'}.`
            : null,
          [
            { label: 'modules', value: data.length, unit: '' },
            { label: 'length of the box', value: box.lengthM ?? 0, unit: 'm' },
            { label: 'width of the box', value: box.widthM ?? 0, unit: 'm' },
            { label: 'height of the box', value: box.heightM ?? 0, unit: 'm' },
          ],
        ),
      );
      if ((box.shelves ?? 0) >= 1) {
        const perShelf = (content.fit?.slots ?? []).reduce((kg, { level }, i) => {
          if (level > 0) kg[level] = (kg[level] ?? 0) + (data[i]?.massKg ?? 0);
          return kg;
        }, new Array<number>());
        const onShelfKg = Math.max(0, ...perShelf.filter((kg) => kg !== undefined));
        const shelfN = onShelfKg * gravityMPerS2 * (anchorG ?? 0);
        checks.push(
          judge(
            boxRules.shelf,
            [subject],
            [
              ...anchorGaps.filter((gap) => gap.kind === 'not-given' && gap.path === 'settings.anchorG'),
              ...missing(box.shelfN, 'shelfN', 'force a shelf is made for'),
              ...noSlots,
            ],
            shelfN > (box.shelfN ?? Infinity)
              ? `The fullest shelf of ${box.tag} carries ${formatNumber(onShelfKg)} kg: ${formatNumber(shelfN / 1000)} kN at ${formatNumber(anchorG ?? 0)} g, and it is made for ${formatNumber((box.shelfN ?? 0) / 1000)} kN.`
              : null,
            [
              { label: 'on the fullest shelf', value: onShelfKg, unit: 'kg' },
              { label: 'force on it', value: shelfN, unit: 'N' },
              { label: 'made for', value: box.shelfN ?? 0, unit: 'N' },
              { label: 'g-load', value: anchorG ?? 0, unit: 'g' },
            ],
          ),
        );
      }
      if (box.floorM2 !== undefined || box.floorKPa !== undefined) {
        const hasShelves = (box.shelves ?? 0) >= 1;
        const onFloorKg = data.reduce(
          (kg, one, i) => (hasShelves && (content.fit?.slots[i]?.level ?? 0) > 0 ? kg : kg + one.massKg),
          0,
        );
        const pressesKPa =
          (potholeG * onFloorKg * gravityMPerS2) /
          1000 /
          (box.floorM2 !== undefined && box.floorM2 > 0 ? box.floorM2 : 1);
        checks.push(
          judge(
            boxRules.floor,
            [subject],
            [
              ...missing(box.floorM2, 'floorM2', 'insulation under the modules'),
              ...missing(box.floorKPa, 'floorKPa', 'what the insulation bears'),
              ...(box.floorM2 !== undefined && !(box.floorM2 > 0)
                ? [
                    {
                      kind: 'invalid' as const,
                      path: `boxes.${subject}.floorM2`,
                      label: `insulation under the modules of ${box.tag}`,
                      message: 'must be above 0',
                    },
                  ]
                : []),
              ...(hasShelves ? noSlots : []),
            ],
            pressesKPa > (box.floorKPa ?? Infinity) * (1 + 1e-9)
              ? `${formatNumber(onFloorKg)} kg stand on ${formatNumber(box.floorM2 ?? 0)} m² of insulation in ${box.tag}: ${formatNumber(pressesKPa)} kPa at ${formatNumber(potholeG)} g, and it bears ${formatNumber(box.floorKPa ?? 0)} kPa.`
              : null,
            [
              { label: 'on the floor', value: onFloorKg, unit: 'kg' },
              { label: 'insulation they stand on', value: box.floorM2 ?? 0, unit: 'm²' },
              { label: 'presses', value: pressesKPa, unit: 'kPa' },
              { label: 'bears', value: box.floorKPa ?? 0, unit: 'kPa' },
              { label: 'pothole', value: potholeG, unit: 'g' },
            ],
          ),
        );
      }
      if (box.linkPitchMm !== undefined)
        checks.push(
          judge(
            boxRules.pitch,
            [subject],
            [],
            box.linkPitchMm < widest
              ? `The link pitch held in ${box.tag} is ${formatNumber(box.linkPitchMm)} mm; its modules are ${formatNumber(widest)} mm wide.`
              : null,
            [
              { label: 'link pitch', value: box.linkPitchMm, unit: 'mm' },
              { label: 'widest module', value: widest, unit: 'mm' },
            ],
          ),
        );
    }
    return { figures, checks };
  },
};

/** How many of its kind of module a box has room for; of the pack's first kind while it is empty. */
function roomFigure(subject: Id, read: Reader, { box, content, noSize }: FilledBox): Figure {
  const modules = read.at('modules');
  const parts = read.at('parts');
  const keys = [...new Set(content.modules.map((id) => modules[id]!.part))];
  const key = keys[0] ?? Object.values(modules)[0]?.part;
  const part = parts[key ?? ''];
  const at = `boxes.${subject}`;
  const gaps: Gap[] = [...noSize];
  if (part?.kind !== 'module') gaps.push({ kind: 'not-given', path: 'modules', label: 'kind of module' });
  if (keys.length > 1) gaps.push({ kind: 'never', label: `${box.tag} holds ${keys.length} kinds of module` });
  const label = 'Modules it has room for';
  const base = { id: figureId('pack.box', subject, 'roomFor'), label, unit: '' };
  if (gaps.length > 0 || part?.kind !== 'module') return { ...base, value: null, gaps, working: [] };
  const { lengthM = 0, widthM = 0, heightM = 0 } = box;
  const marginMm = read.at('pack', 'boxMarginMm') ?? packDefaults.boxMarginMm;
  const value = mostModules({ lengthM, widthM, heightM, marginMm, ...roomOf(box) }, part.data);
  const inner = (metres: number) => metres * 1000 - 2 * marginMm;
  return {
    ...base,
    value,
    gaps: [],
    working: [
      {
        symbol: 'n',
        label,
        formula: 'rows·across·layers',
        inputs: [
          { symbol: 'l', value: inner(lengthM), unit: 'mm', origin: { kind: 'document', path: at } },
          { symbol: 'w', value: inner(widthM), unit: 'mm', origin: { kind: 'document', path: at } },
          { symbol: 'h', value: inner(heightM), unit: 'mm', origin: { kind: 'document', path: at } },
        ],
        value,
        unit: '',
        source: `${part.label} in rows, turned in plan where more fit${part.data.onSide === true || part.data.onEnd === true ? ', laid down as its maker allows' : ', upright'}; off each wall ${formatNumber(marginMm)} mm`,
      },
    ],
  };
}
