import { figureId, type Gap } from '../../ground/figure';
import { formatNumber, formatQuantity } from '../../ground/quantity';
import { coolingDefaults, feedsOfBox, occupied } from '../../model/document';
import { gapsBehind, Inputs, judge, type Reader, type StepDefinition } from '../../model/step';
import { accessories } from './accessories';
import { range } from './range';
import { roadInputs } from './road-inputs';
import { vehicleRules } from './rules';

/** Air of 20 °C, kg/m³, as road load takes it where nothing is typed. */
const air20KgM3 = 1.2;
const kelvin = 273.15;
/** Dry air at constant pressure, kg/m³. */
export const coldAirKgM3 = (temperatureC: number): number =>
  (air20KgM3 * (20 + kelvin)) / (temperatureC + kelvin);

/** What warming the modules from the coldest night takes out of the pack, kWh: of boxes that have a heater, unless another source feeds it. */
function warmingOf(read: Reader): { kWh: number; gaps: Gap[] } {
  const boxes = read.at('boxes');
  const gaps: Gap[] = [];
  let kWh = 0;
  const modules = read.at('modules');
  for (const id of occupied({ boxes, modules })) {
    const feeds = feedsOfBox({ boxes, plumbing: read.at('plumbing'), modules }, id);
    if (feeds.length > 0 && !feeds.includes('pack')) continue;
    // A box without a heater is not warmed.
    if (read.figure(figureId('cooling.box', id, 'heaterW')).value === 0) continue;
    const energy = read.figure(figureId('cooling.box', id, 'energyKWh'));
    if (energy.value === null) gaps.push(...gapsBehind(energy));
    kWh += energy.value ?? 0;
  }
  return { kWh, gaps };
}

/**
 * How far the vehicle comes on the coldest day: the pack warmed first to where it may be charged, the cabin heated all the way,
 * both out of the pack, through denser air.
 */
export const winterStep: StepDefinition = {
  id: 'vehicle.winter',
  version: 1,
  subjects: ({ vehicle, cooling }) =>
    vehicle.cabinHeatW === undefined && cooling === undefined ? [] : ['vehicle'],
  compute(subject, read) {
    const vehicle = read.at('vehicle');
    const cooling = read.at('cooling');
    const coldC = cooling?.coldC ?? coolingDefaults.coldC;
    const usable = read.figure(figureId('pack.pack', 'pack', 'usableEnergyKWh'));
    const warming = cooling === undefined ? { kWh: 0, gaps: [] } : warmingOf(read);
    const inputs = new Inputs(read);
    inputs.set('method', 'road-load', { kind: 'constant', source: 'by road load' });
    inputs.missing(...(usable.value === null ? gapsBehind(usable) : []), ...warming.gaps);
    inputs.set(
      'usableEnergyKWh',
      Math.max(0, (usable.value ?? 0) - warming.kWh),
      { kind: 'constant', source: `usable energy less ${formatNumber(warming.kWh)} kWh that warm the pack` },
      'energy left once the pack is warm',
    );
    inputs.figure('massKg', figureId('vehicle.axles', 'vehicle', 'totalKg'));
    roadInputs(inputs, vehicle);
    const drawsW = accessories(inputs, read);
    const { airDensityKgM3 } = vehicle;
    // Typed, it holds instead of what the cabin is computed to need.
    const needed =
      vehicle.cabinHeatW !== undefined || read.at('cabin') === undefined
        ? null
        : read.figure(figureId('cooling.cabin', 'cabin', 'neededW'));
    if (needed !== null && needed.value === null) inputs.missing(...gapsBehind(needed));
    const cabinHeatW = vehicle.cabinHeatW ?? needed?.value ?? undefined;
    if (needed === null && (cabinHeatW === undefined || cabinHeatW < 0))
      inputs.missing({
        path: 'vehicle.cabinHeatW',
        label: 'cabin heat in winter',
        ...(cabinHeatW === undefined
          ? { kind: 'not-given' }
          : { kind: 'invalid', message: 'must be 0 or more' }),
      });
    inputs.set(
      'accessoriesW',
      (drawsW ?? 0) + (cabinHeatW ?? 0),
      needed === null
        ? { kind: 'document', path: 'vehicle.cabinHeatW' }
        : { kind: 'constant', source: 'accessories as typed, cabin heat as computed' },
      'accessories and cabin heat',
    );
    if (airDensityKgM3 === undefined)
      inputs.set('airDensityKgM3', coldAirKgM3(coldC), {
        kind: 'constant',
        source: `air of ${formatQuantity(coldC, '°C')}`,
      });
    const run = inputs.run(range);
    const figures = run.figures('vehicle.winter', subject, [
      { name: 'whPerKm', symbol: 'e', label: 'Consumption on the coldest day', unit: 'Wh/km' },
      { name: 'rangeKm', symbol: 's', label: 'Range on the coldest day', unit: 'km' },
    ]);
    const summerKm = read.figure(figureId('vehicle.range', 'road-load', 'rangeKm')).value;
    const wanted = vehicle.wantedRangeKm;
    const winterKm = run.result?.rangeKm ?? null;
    // What is short on any day is said as that.
    const isShort =
      wanted !== undefined &&
      winterKm !== null &&
      winterKm < wanted &&
      summerKm !== null &&
      summerKm >= wanted;
    return run.output(figures, [
      judge(
        vehicleRules.rangeWinter,
        [subject],
        [
          ...run.gaps,
          ...(wanted === undefined
            ? [{ kind: 'not-given' as const, path: 'vehicle.wantedRangeKm', label: 'range wanted' }]
            : []),
        ],
        isShort
          ? `At ${formatQuantity(coldC, '°C')} it comes ${formatNumber(winterKm)} km, with ${formatNumber(warming.kWh)} kWh to warm the pack and ${formatNumber(cabinHeatW!)} W for the cabin; the brief asks for ${formatNumber(wanted)} km.`
          : null,
        [
          { label: 'coldest day', value: coldC, unit: '°C' },
          { label: 'range on it', value: winterKm ?? 0, unit: 'km' },
          { label: 'to warm the pack', value: warming.kWh, unit: 'kWh' },
          { label: 'cabin heat', value: cabinHeatW ?? 0, unit: 'W' },
          { label: 'range wanted', value: wanted ?? 0, unit: 'km' },
        ],
      ),
    ]);
  },
};
