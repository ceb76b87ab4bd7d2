import ApexCharts from 'apexcharts';
import { useEffect, useRef } from 'react';

export interface Bar {
  readonly label: string;
  readonly count: number;
}

interface BarsChartProps {
  readonly bars: readonly Bar[];
  /** What the whole width stands for. */
  readonly of: number;
}

/** Pixels; the figures beside the bars have lines as high. */
const lineHeight = 32;

/** Bars side by side in the colours of the page. The figures stand beside it in words, so that it is only a picture of them. */
export default function BarsChart({ bars, of }: BarsChartProps) {
  const place = useRef<HTMLDivElement>(null);
  const drawn = JSON.stringify(bars);
  useEffect(() => {
    if (!place.current) return;
    const shown = JSON.parse(drawn) as readonly Bar[];
    const ink = getComputedStyle(place.current).getPropertyValue('--ink').trim();
    const line = getComputedStyle(place.current).getPropertyValue('--line').trim();
    const chart = new ApexCharts(place.current, {
      // Nothing but the bars, each as high as its line of figures.
      chart: {
        type: 'bar',
        height: shown.length * lineHeight,
        sparkline: { enabled: true },
        animations: { enabled: false },
      },
      series: [{ name: 'answers', data: shown.map(({ label, count }) => ({ x: label, y: count })) }],
      colors: [ink],
      plotOptions: {
        bar: { horizontal: true, barHeight: '56%', borderRadius: 2, colors: { backgroundBarColors: [line] } },
      },
      tooltip: { enabled: false },
      states: { hover: { filter: { type: 'none' } }, active: { filter: { type: 'none' } } },
      // The whole width stands for everyone who answered.
      xaxis: { min: 0, max: Math.max(1, of) },
    });
    void chart.render();
    return () => chart.destroy();
  }, [drawn, of]);
  return <div ref={place} aria-hidden="true" />;
}
