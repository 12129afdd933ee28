import { formatQuantity } from '../../../ground/quantity';
import type { Case, Hypothesis } from '../../../model/procedure';

const cause = (what: string, because: string, check: string, predicts: number | null = null): Hypothesis => ({
  cause: what,
  because,
  check,
  predicts,
});

/** Why a charge does not end where it should. */
export function stopCauses({ step, design }: Case): Hypothesis[] {
  const { endV } = design.devices[step.subjects[0]?.id ?? ''] ?? {};
  const cells = Object.values(design.strings)[0]?.modules.length ?? 0;
  return [
    cause(
      'The charger is set to another end',
      `It ends where it is set: ${endV === undefined ? 'not given' : formatQuantity(endV, 'V')} is expected.`,
      'Read its setting by its maker’s tool, and write it into the ladder.',
    ),
    cause(
      'Its own meter is off',
      'A charger that reads low charges high.',
      'Hold its display against the meter at rest.',
    ),
    cause(
      'The monitor asked for the end, or for more',
      `Where the monitor commands the charger, its limit governs; ${cells} modules hang in a string.`,
      'Read the monitor’s log at that moment.',
    ),
  ];
}

/** Why current flows on although a cut acted. */
export function cutCauses({ step, design }: Case): Hypothesis[] {
  const cut = design.cuts?.[step.subjects[0]?.id ?? ''];
  return [
    cause(
      'A contact of the cut is welded',
      'It was told to open and current flows on.',
      'With the mains off: resistance over each of its contacts, released.',
    ),
    cause(
      'It opens another path than the one that feeds',
      'A second charger or phase goes round it.',
      'Follow each phase from the inlet to each charger.',
    ),
    ...(cut?.opens === 'enable of the charger'
      ? [
          cause(
            'The charger ignores its enable',
            'Its input is set to be of no effect, or is bridged.',
            'Open the enable at the charger’s own plug.',
          ),
        ]
      : []),
    cause(
      'Its threshold was not reached',
      'What it reads is not what the meter reads.',
      'Bring its threshold down further and read what it shows.',
    ),
  ];
}

/** Why more flows than its way allows. */
export function currentCauses({ expected }: Case): Hypothesis[] {
  const range = expected.kind === 'range' ? expected : null;
  return [
    ...(range?.nominal === undefined
      ? []
      : [
          cause(
            'Two chargers hang on one phase',
            'Both draw what the pilot offers to one.',
            'Clamp each charger’s own feed.',
            2 * range.nominal,
          ),
        ]),
    cause(
      'The charger reads neither pilot nor coding',
      'It draws what it is set to.',
      'Its maker’s setting, and both wires from the inlet to it.',
    ),
    cause(
      'Pilot and proximity are exchanged',
      'It reads the one as the other.',
      'Continuity of both, pin by pin.',
    ),
  ];
}

/** Why current flows on once the pilot is gone. */
export const lostCauses: readonly Hypothesis[] = [
  cause(
    'The charger waits for the monitor',
    'It ends by a message, not by the pilot.',
    'Time pilot, message and current together.',
  ),
  cause(
    'The pilot is held up by a parallel path',
    'A controller of its own feeds it.',
    'Unplug the controller and try again.',
  ),
];

/** Why an open inlet is live. */
export const weldCauses: readonly Hypothesis[] = [
  cause(
    'A contactor is welded',
    'The far side has the pack’s voltage.',
    'Isolate, prove dead, then resistance over each of the two.',
  ),
  cause(
    'A contactor is driven',
    'Its coil has a voltage it should not have.',
    'Voltage at both coils with the inlet open.',
  ),
  cause(
    'A discharge path is missing',
    'The cable keeps its charge after they have opened.',
    'Read again after a minute: it falls.',
  ),
];
