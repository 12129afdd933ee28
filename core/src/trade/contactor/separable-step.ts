import { rulesOf, type CheckValue, type Rule } from '../../ground/finding';
import { figureId, type Gap } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import { everyCircuit, touchLimitOf, type Id } from '../../model/document';
import { partKey } from '../../model/parts';
import { gapsBehind, judge, type StepDefinition } from '../../model/step';
import { stringLoadOf } from '../fuse';
import { packHighest } from '../precharge';

const disconnect = rulesOf('disconnect');
const plug = rulesOf('plug');
const makers = 'Makers’ DC ratings';

export const disconnectRules = {
  voltage: disconnect(
    'voltage',
    'stop',
    'The service disconnect is not made for this voltage',
    'It is pulled by a hand: what flashes over in it is in front of a face.',
    'A disconnect whose DC rating is at or above the highest pack voltage.',
    makers,
  ),
  carry: disconnect(
    'carry',
    'mend',
    'The service disconnect carries more than its rating',
    'Its contacts get hot in the middle of the pack, where nobody looks.',
    'A disconnect of a higher rating, or a smaller load.',
    makers,
  ),
  load: disconnect(
    'under-load',
    'mend',
    'The service disconnect can be pulled under load',
    'Nothing opens the contactors before its contacts part, and it does not break what flows.',
    'One with an interlock that opens first, or one that breaks the load.',
    makers,
  ),
  touch: disconnect(
    'touchable',
    'mend',
    'With the service disconnect out live metal can be touched',
    'Half of the pack stands behind the opening.',
    'A disconnect with sockets that no finger reaches, or a cover that locks on.',
    'Touch limit of the job',
  ),
};

export const plugRules = {
  voltage: plug(
    'voltage',
    'stop',
    'The plug is not made for this voltage',
    'Pins too near each other track over, under the hood where it is wet.',
    'A plug whose DC rating is at or above the highest pack voltage.',
    makers,
  ),
  carry: plug(
    'carry',
    'mend',
    'The plug carries more than its rating',
    'Its contacts lose their spring with heat, and get hotter for it.',
    'A plug of a higher rating, or a smaller load.',
    makers,
  ),
  area: plug(
    'area',
    'mend',
    'The contacts of the plug are made for another conductor',
    'A crimp holds and conducts only at the area that its barrel is made for.',
    'Contacts of the cable’s area.',
    makers,
  ),
  heat: plug(
    'temperature',
    'mend',
    'The conductor runs hotter than its plug stands',
    'Plastic that holds the pins apart gets soft.',
    'A plug for the temperature, or a larger cable.',
    makers,
  ),
  screen: plug(
    'screen',
    'mend',
    'The screen ends at a plug that does not meet it',
    'What the inverter puts on the cable leaves it there.',
    'A plug whose shell meets the screen all round.',
    'Makers of inverters: screens ended all round',
  ),
  interlock: plug(
    'no-interlock',
    'mend',
    'The plug is said to open the interlock and has no contact for it',
    'It can be pulled under load: the arc stays.',
    'A plug with interlock contacts.',
    'Design of the interlock loop',
  ),
  touch: plug(
    'touchable',
    'mend',
    'Live metal can be touched when the plug is open',
    'Somebody will open it with the pack closed.',
    'A plug that no finger reaches into.',
    'Touch limit of the job',
  ),
};

const n = formatNumber;
const v = (label: string, value: number, unit: string): CheckValue => ({ label, value, unit });
const notGiven = (path: string, label: string): Gap => ({ kind: 'not-given', path, label });

/** The service disconnect of each string that has one. */
export const disconnectStep: StepDefinition = {
  id: 'contactor.disconnect',
  version: 1,
  subjects: ({ strings }) =>
    Object.keys(strings).filter((id) => {
      const { disconnectAt, modules } = strings[id]!;
      return disconnectAt !== undefined && modules.length > 1;
    }),
  compute(subject: Id, read) {
    const { tag, disconnect: key = '' } = read.at('strings')[subject]!;
    const part = read.at('parts', key);
    const data = part?.kind === 'disconnect' ? part.data : null;
    const highest = read.figure(packHighest);
    const load = stringLoadOf(read);
    const touchV = touchLimitOf({ settings: read.at('settings') });
    const none =
      data === null ? [notGiven(`strings.${subject}.disconnect`, `service disconnect of ${tag}`)] : [];
    const noVoltage = highest.value === null ? gapsBehind(highest) : [];
    const label = part?.label ?? '';
    const check = (of: Rule, gaps: Gap[], problem: string | null, values: CheckValue[]) =>
      judge(
        of,
        [subject],
        [...none, ...gaps],
        problem === null ? null : `${label} in ${tag} ${problem}.`,
        values,
        { parts: data === null ? [] : [partKey(part!)] },
      );
    const [rmsA, peakA, highV] = [load.rmsA ?? 0, load.peakA ?? 0, highest.value ?? 0];
    return {
      figures: [],
      checks: [
        check(
          disconnectRules.voltage,
          noVoltage,
          data !== null && highV > data.ratedVoltageV
            ? `is rated ${n(data.ratedVoltageV)} V DC, the pack reaches ${n(highV)} V`
            : null,
          [
            v('highest pack voltage', highV, 'V'),
            v('rated voltage of the disconnect', data?.ratedVoltageV ?? 0, 'V'),
          ],
        ),
        check(
          disconnectRules.carry,
          load.gaps,
          data !== null && rmsA > data.continuousA
            ? `carries ${n(data.continuousA)} A; the string’s load is ${n(rmsA)} A`
            : null,
          [
            v('load of the string', rmsA, 'A'),
            v('continuous current of the disconnect', data?.continuousA ?? 0, 'A'),
          ],
        ),
        check(
          disconnectRules.load,
          load.gaps,
          data !== null && !data.interlock && data.breakA < peakA
            ? `has no interlock, and parts ${n(data.breakA)} A where ${n(peakA)} A may flow`
            : null,
          [v('peak of the string', peakA, 'A'), v('parts under load', data?.breakA ?? 0, 'A')],
        ),
        check(
          disconnectRules.touch,
          noVoltage,
          data !== null && !data.fingerproof && highV > touchV
            ? `leaves live metal open to a finger, in a pack of ${n(highV)} V`
            : null,
          [v('highest pack voltage', highV, 'V'), v('touch limit', touchV, 'V')],
        ),
      ],
    };
  },
};

/** The plug in which the cable of a circuit ends; nothing of it where the cable goes through glands. */
export const plugStep: StepDefinition = {
  id: 'contactor.plug',
  version: 1,
  subjects: everyCircuit,
  compute(subject: Id, read) {
    const circuit = read.at('circuits', subject)!;
    const { tag, plug: key, ends, screened } = circuit;
    if (key === undefined && (ends === undefined || ends === 'gland')) return { figures: [], checks: [] };
    const part = read.at('parts', key ?? '');
    const data = part?.kind === 'plug' ? part.data : null;
    const cable = read.at('parts', circuit.cable ?? '');
    const highest = read.figure(packHighest);
    const load = read.figure(figureId('network.load', subject, 'rmsA'));
    const hottest = read.figure(figureId('conductor.duty', subject, 'peakTemperatureC'));
    const touchV = touchLimitOf({ settings: read.at('settings') });
    const none = data === null ? [notGiven(`circuits.${subject}.plug`, `plug of ${tag}`)] : [];
    const noCable = cable?.kind === 'cable' ? [] : [notGiven(`circuits.${subject}.cable`, 'cable')];
    const behind = (figure: typeof load) => (figure.value === null ? gapsBehind(figure) : []);
    const check = (of: Rule, gaps: Gap[], problem: string | null, values: CheckValue[]) =>
      judge(
        of,
        [subject],
        [...none, ...gaps],
        problem === null ? null : `${part?.label ?? ''} at ${tag} ${problem}.`,
        values,
        { parts: data === null ? [] : [partKey(part!)] },
      );
    const [highV, loadA, hotC] = [highest.value ?? 0, load.value ?? 0, hottest.value ?? 0];
    const areaMm2 = cable?.kind === 'cable' ? cable.data.areaMm2 : 0;
    return {
      figures: [],
      checks: [
        check(
          plugRules.voltage,
          behind(highest),
          data !== null && highV > data.ratedVoltageV
            ? `is rated ${n(data.ratedVoltageV)} V DC, the pack reaches ${n(highV)} V`
            : null,
          [
            v('highest pack voltage', highV, 'V'),
            v('rated voltage of the plug', data?.ratedVoltageV ?? 0, 'V'),
          ],
        ),
        check(
          plugRules.carry,
          behind(load),
          data !== null && loadA > data.continuousA
            ? `carries ${n(data.continuousA)} A, the load is ${n(loadA)} A`
            : null,
          [v('load', loadA, 'A'), v('continuous current of the plug', data?.continuousA ?? 0, 'A')],
        ),
        check(
          plugRules.area,
          noCable,
          data !== null && areaMm2 !== data.areaMm2
            ? `is for ${n(data.areaMm2)} mm², the cable has ${n(areaMm2)} mm²`
            : null,
          [v('area of the cable', areaMm2, 'mm²'), v('of the plug', data?.areaMm2 ?? 0, 'mm²')],
        ),
        check(
          plugRules.heat,
          behind(hottest),
          data !== null && hotC > data.maxC
            ? `stands ${n(data.maxC)} °C, the conductor reaches ${n(hotC)} °C`
            : null,
          [v('hottest conductor', hotC, '°C'), v('of the plug', data?.maxC ?? 0, '°C')],
        ),
        check(
          plugRules.screen,
          [],
          data !== null && screened === true && !data.screenContact
            ? `has no contact to the screen at 1 end of a screened cable`
            : null,
          [v('screened', screened === true ? 1 : 0, '')],
        ),
        check(
          plugRules.interlock,
          [],
          data !== null && ends === 'interlocked' && !data.interlock
            ? `has 0 contacts for the interlock, which its cable is said to open`
            : null,
          [v('interlock contacts', data?.interlock === true ? 1 : 0, '')],
        ),
        check(
          plugRules.touch,
          behind(highest),
          data !== null && !data.fingerproof && highV > touchV
            ? `leaves live metal open to a finger, on a bus of ${n(highV)} V`
            : null,
          [v('highest pack voltage', highV, 'V'), v('touch limit', touchV, 'V')],
        ),
      ],
    };
  },
};
