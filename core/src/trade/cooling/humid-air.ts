/** Air and the water in it, at the pressure of the sea. */
const pressureHPa = 1013.25;
/** Dry air at constant pressure, J/kgK. */
export const airJPerKgK = 1006;

/** Saturation over water, hPa: Magnus with the coefficients of Sonntag (1990), as the WMO gives them. */
export const saturationHPa = (temperatureC: number): number =>
  6.112 * Math.exp((17.62 * temperatureC) / (243.12 + temperatureC));

/** Water in saturated air, kg per kg of dry air. */
export function saturatedKgPerKg(temperatureC: number): number {
  const e = saturationHPa(temperatureC);
  return (0.622 * e) / (pressureHPa - e);
}

/** Where air with this much water begins to mist, °C. */
export function dewPointC(waterKgPerKg: number): number {
  const e = (waterKgPerKg * pressureHPa) / (0.622 + waterKgPerKg);
  const x = Math.log(e / 6.112);
  return (243.12 * x) / (17.62 - x);
}
