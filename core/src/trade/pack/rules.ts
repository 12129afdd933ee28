import { rulesOf } from '../../ground/finding';

const rule = rulesOf('pack');

export const packRules = {
  cellAtPeak: rule(
    'cell-below-minimum-at-peak',
    'mend',
    'Cells fall below their minimum at peak current',
    'Below the minimum a cell is damaged for good, and the monitor cuts the drive in the middle of a manoeuvre.',
    'More in parallel, a lower peak, or a higher state of charge at which the peak is allowed.',
    'Cell maker’s limits; sag by the pulse resistance',
  ),
  modulePeak: rule(
    'module-peak-current',
    'mend',
    'Modules carry more than their peak current',
    'Tabs, fuses and bonds inside a donor module set its limit, not the cells alone.',
    'More strings in parallel, or a lower peak current in the inverter’s settings.',
    'Module maker’s data',
  ),
  deviceHigh: rule(
    'above-device-window',
    'stop',
    'The pack reaches a voltage a device does not stand',
    'Capacitors and semiconductors beyond their voltage fail short, on a bus that is live.',
    'Fewer modules in series, a lower charge limit that is proved, or another device.',
    'Device makers’ voltage windows',
  ),
  deviceLow: rule(
    'below-device-window',
    'note',
    'A device stops before the pack is empty',
    'Below its window the device limits or switches off: energy at the bottom of the pack is out of its reach.',
    'Narrow the charge window, or choose a device that works lower.',
    'Device makers’ voltage windows',
  ),
  deviceWide: rule(
    'device-window-wide',
    'note',
    'A device is said to work over an unlikely range of voltage',
    'One end was typed with a digit too many or too few: what it is judged by holds anything.',
    'The window of its sheet.',
    'Highest over lowest voltage of at most ten',
  ),
  deviceSag: rule(
    'sags-below-device-window',
    'mend',
    'At peak current the bus sags below a device’s window',
    'The device drops out just when the most is asked of the vehicle.',
    'Lower the peak current, more in parallel, or allow the peak only at higher charge.',
    'Device makers’ voltage windows; sag by the pulse resistance',
  ),
};
