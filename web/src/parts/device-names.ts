import type { DeviceKind } from '@torvek/core/document';

/** Kinds of device as people call them. */
export const deviceNames: Record<DeviceKind, string> = {
  inverter: 'Inverter',
  charger: 'Charger',
  'dc-dc': 'DC-DC',
  heater: 'Heater',
  compressor: 'Compressor',
  'dc-inlet': 'DC inlet',
  'insulation-monitor': 'Insulation monitor',
  other: 'Device',
};
