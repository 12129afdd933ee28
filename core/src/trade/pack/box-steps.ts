import { figureId, type Check, type Figure, type Gap } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import { judge, type StepDefinition } from '../../model/step';
import { gravityMPerS2 } from '../vehicle';
import { boxContents } from './arrangement';
import { boxRules } from './box-rules';

/** A box as a thing that is built: what holds it, who reaches into it, whether it breathes, whether its modules fit. */
export const boxStep: StepDefinition = {
  id: 'pack.box',
  version: 1,
  subjects: (design) => Object.keys(design.boxes),
  compute(subject, read) {
    const box = read.at('boxes', subject)!;
    const modules = read.at('modules');
    const parts = read.at('parts');
    const at = `boxes.${subject}`;
    const content = boxContents({
      boxes: { [subject]: box },
      modules,
      parts,
      strings: read.at('strings'),
      pack: read.at('pack'),
    }).get(subject)!;
    const data = content.modules.flatMap((id) => {
      const part = parts[modules[id]?.part ?? ''];
      return part?.kind === 'module' ? [part.data] : [];
    });
    const missing = (value: unknown, field: string, label: string): Gap[] =>
      value === undefined
        ? [{ kind: 'not-given', path: `${at}.${field}`, label: `${label} of ${box.tag}` }]
        : [];
    const noMass = missing(box.emptyKg, 'emptyKg', 'empty mass');
    const massKg = (box.emptyKg ?? 0) + data.reduce((sum, module) => sum + module.massKg, 0);
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
      const sizes = [
        ...missing(box.lengthM, 'lengthM', 'length'),
        ...missing(box.widthM, 'widthM', 'width'),
        ...missing(box.heightM, 'heightM', 'height'),
      ];
      checks.push(
        judge(
          boxRules.overfull,
          [subject],
          sizes,
          content.sized && content.fit === null
            ? `${data.length} modules do not fit into ${box.tag} (${formatNumber((box.lengthM ?? 0) * 1000)} × ${formatNumber((box.widthM ?? 0) * 1000)} × ${formatNumber((box.heightM ?? 0) * 1000)} mm) upright in rows.`
            : null,
          [
            { label: 'modules', value: data.length, unit: '' },
            { label: 'length of the box', value: box.lengthM ?? 0, unit: 'm' },
            { label: 'width of the box', value: box.widthM ?? 0, unit: 'm' },
            { label: 'height of the box', value: box.heightM ?? 0, unit: 'm' },
          ],
        ),
      );
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
