import { CustomChart, LineChart, ScatterChart } from 'echarts/charts';
import {
  AriaComponent,
  GridComponent,
  MarkAreaComponent,
  MarkLineComponent,
  TooltipComponent,
} from 'echarts/components';
import { use } from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';

use([
  CustomChart,
  LineChart,
  ScatterChart,
  GridComponent,
  TooltipComponent,
  MarkLineComponent,
  MarkAreaComponent,
  AriaComponent,
  CanvasRenderer,
]);

export const fontFamily = "'Atkinson Hyperlegible Next', system-ui, sans-serif";

/** A colour of the tokens, as it is now in this theme. */
export function token(name: string): string {
  return getComputedStyle(document.documentElement).getPropertyValue(`--tv-${name}`).trim();
}

export interface AxisOptions {
  name: string;
  log?: boolean;
  min?: number | undefined;
  max?: number | undefined;
  format?: (value: number) => string;
}

/** A value axis with its name and unit. */
export function axis(side: 'x' | 'y', { name, log = false, min, max, format }: AxisOptions) {
  const ink = token('soft');
  return {
    type: log ? ('log' as const) : ('value' as const),
    name,
    nameLocation: side === 'x' ? ('middle' as const) : ('end' as const),
    nameGap: side === 'x' ? 26 : 10,
    nameTextStyle: {
      color: ink,
      fontFamily,
      fontSize: 12,
      ...(side === 'y' && { align: 'left' as const, padding: [0, 0, 0, -34] }),
    },
    axisLabel: {
      color: ink,
      fontFamily,
      fontSize: 12,
      hideOverlap: true,
      ...(format && { formatter: format }),
    },
    axisLine: { show: true, lineStyle: { color: token('line') } },
    splitLine: { lineStyle: { color: token('line'), opacity: 0.7 } },
    ...(min !== undefined && { min }),
    ...(max !== undefined && { max }),
    scale: true,
  };
}

/** A horizontal or vertical limit with its label at the end. */
export function limitLine(
  at: { x?: number; y?: number },
  label: string,
  color: string,
  position:
    | 'insideEndTop'
    | 'insideStartTop'
    | 'insideEndBottom'
    | 'insideStartBottom'
    | 'insideMiddleBottom' = 'insideEndTop',
) {
  return {
    ...(at.x !== undefined ? { xAxis: at.x } : { yAxis: at.y }),
    lineStyle: { color, type: 'dashed' as const, width: 1.3 },
    label: {
      formatter: label,
      position,
      color,
      fontFamily,
      fontSize: 12,
      backgroundColor: token('sheet'),
      padding: [1, 3],
    },
  };
}

/** Draws rows of `[x, low, high]` as upright bars with caps: the renderer of a custom series. */
export function intervalBars(color: string, lineWidth: number, capPx: number) {
  return (
    _: unknown,
    api: { value(at: number): number; coord(point: [number, number]): [number, number] },
  ) => {
    const [x, low] = api.coord([api.value(0), api.value(1)]);
    const [, high] = api.coord([api.value(0), api.value(2)]);
    const line = (x1: number, y1: number, x2: number, y2: number) => ({
      type: 'line',
      shape: { x1, y1, x2, y2 },
      style: { stroke: color, lineWidth },
    });
    return {
      type: 'group',
      children: [
        line(x, low, x, high),
        line(x - capPx, low, x + capPx, low),
        line(x - capPx, high, x + capPx, high),
      ],
    };
  };
}
