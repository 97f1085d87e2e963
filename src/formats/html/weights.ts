import { BarChart } from 'echarts/charts';
import { GridComponent } from 'echarts/components';
import { init, use } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';
import { joinWords } from '../../core/words/list.js';
import { listWeights, type WeightBar } from '../weights.js';
import type { DrawWeights } from './contacts.js';
import { html, trusted } from './template.js';

/** What the drawing is made with, px: it is scaled to the room that there is. */
const WIDTH = 760;
const [BAR, ROW] = [14, 30];
const LABELS = 230;

/** Colours that stand for those of the page, light or dark. */
const COLOURS = { '#000001': 'var(--ink)', '#000002': 'var(--advice)', '#000003': 'var(--line)' };
const [INK, FILL, LINE] = Object.keys(COLOURS) as [string, string, string];

use([BarChart, GridComponent, SVGRenderer]);

/** Draws how much comes from each host; null where there is nothing to hold against each other. */
export const drawWeights: DrawWeights = (contacts) => {
  const bars = listWeights(contacts);
  if (bars.length < 2) return null;
  const height = bars.length * ROW + 8;
  const chart = init(null, null, { renderer: 'svg', ssr: true, width: WIDTH, height });
  chart.setOption(toOption(bars));
  const drawn = chart.renderToSVGString();
  chart.dispose();
  return html`<div
    class="chart"
    role="img"
    aria-label="Weight by host: ${joinWords(bars.map(({ name, said }) => `${name} ${said}`))}"
  >
    ${trusted(settle(drawn))}
  </div>`;
};

function toOption(bars: readonly WeightBar[]) {
  const font = { color: INK, fontSize: 13, fontFamily: 'system-ui, Arial, sans-serif' };
  return {
    animation: false,
    grid: { left: LABELS, right: 90, top: 4, bottom: 4 },
    xAxis: { type: 'value' as const, show: false, min: 0 },
    yAxis: {
      type: 'category' as const,
      inverse: true,
      data: bars.map(({ name }) => name),
      axisLine: { lineStyle: { color: LINE } },
      axisTick: { show: false },
      axisLabel: { ...font, width: LABELS, interval: 0 },
    },
    series: [
      {
        type: 'bar' as const,
        data: bars.map(({ value, said }) => ({
          value,
          label: {
            ...font,
            textBorderWidth: 0,
            show: true,
            position: 'right' as const,
            formatter: said,
          },
        })),
        barWidth: BAR,
        itemStyle: { color: FILL },
        silent: true,
        emphasis: { disabled: true },
      },
    ],
  };
}

/** As the page's own: in its colours, and without what is meant for a hand that points. */
function settle(svg: string): string {
  const still = svg
    .replace(/<style[\s\S]*?<\/style>/g, '')
    .replace(/ (?:class|pointer-events|ecmeta_\w+)="[^"]*"/g, '')
    .replace(/^<svg width="[^"]*" height="[^"]*"/, '<svg');
  return Object.entries(COLOURS).reduce((text, [from, to]) => text.replaceAll(from, to), still);
}
