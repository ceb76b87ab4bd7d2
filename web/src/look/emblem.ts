import { sure } from '@jigsaw/core/lists';
/** The piece that stands for a group. Three things tell groups apart, so that no one depends on colour alone:
 * the form (four edges, each a tab, a socket or flat), one of 12 hues of equal lightness, and the number.
 * Geometry: a 100 x 100 box whose body is the middle 70; a tab reaches 15 beyond it, a socket as far in. */

const inset = 15;
const body = 70;
const corner = 5;

/** The 23 ways to cut four edges that differ after turning, the plain square left out; the easiest to tell apart come first.
 * Edges: top, right, bottom, left. */
const forms = [
  'TTSS', 'TFSF', 'FTFT', 'SFSF', 'STFF', 'TTTT', 'FTSF', 'TFFT', 'STST', 'FTTT', 'STFT', 'TTST',
  'TFFF', 'FSFF', 'SSFF', 'TTSF', 'STTF', 'SSTF', 'STSF', 'TSSF', 'SSSF', 'SSST', 'SSSS',
] as const; // prettier-ignore

/** One knob along an edge of length 1, outward is +y. The shoulder dips and the neck is narrower than the bulb:
 * that is what makes it read as a jigsaw piece and not as a circle on a stick. */
const knob = [
  [0.2, 0, 0.33, -0.034, 0.395, -0.024],
  [0.44, -0.016, 0.438, 0.03, 0.405, 0.066],
  [0.315, 0.125, 0.34, 0.212, 0.5, 0.212],
  [0.66, 0.212, 0.685, 0.125, 0.595, 0.066],
  [0.562, 0.03, 0.56, -0.016, 0.605, -0.024],
  [0.67, -0.034, 0.8, 0, 1, 0],
] as const;

const round = (value: number) => Math.round(value * 100) / 100;

function edge(kind: string, x: number, y: number, dx: number, dy: number): string {
  const [outX, outY] = [dy, -dx];
  const length = body - corner;
  if (kind === 'F') return `L${round(x + dx * length)} ${round(y + dy * length)}`;
  const sign = kind === 'T' ? 1 : -1;
  return knob
    .map((segment, at) => {
      const points = [0, 2, 4].map((k) => {
        const isEnd = at === knob.length - 1 && k === 4;
        const along = isEnd ? length : sure(segment[k]) * body;
        const away = sure(segment[k + 1]) * body * sign;
        return `${round(x + dx * along + outX * away)} ${round(y + dy * along + outY * away)}`;
      });
      return `C${points.join(' ')}`;
    })
    .join('');
}

/** The four edges of group `number` (1, 2, 3 …). After 23 the same forms come back turned by a quarter. */
export function formOf(number: number): string {
  const form = sure(forms[(number - 1) % forms.length]);
  const turn = Math.floor((number - 1) / forms.length) % 4;
  return form.slice(4 - turn) + form.slice(0, 4 - turn);
}

const known = new Map<string, string>();

/** A silhouette as an SVG path; a page has hundreds of a few forms. */
export function piecePath(form: string): string {
  const path = known.get(form) ?? drawn(form);
  known.set(form, path);
  return path;
}

function drawn(form: string): string {
  const [a, b, r] = [inset, inset + body, corner];
  return [
    `M${a + r} ${a}`,
    edge(sure(form[0]), a, a, 1, 0),
    `Q${b} ${a} ${b} ${a + r}`,
    edge(sure(form[1]), b, a, 0, 1),
    `Q${b} ${b} ${b - r} ${b}`,
    edge(sure(form[2]), b, b, -1, 0),
    `Q${a} ${b} ${a} ${b - r}`,
    edge(sure(form[3]), a, b, 0, -1),
    `Q${a} ${a} ${a + r} ${a}Z`,
  ].join('');
}

/** Hue slot 1 to 12; neighbours in number are 150 degrees apart. */
export const hueOf = (number: number): number => ((number - 1) % 12) + 1;

/** A socket on one side only pushes the number a little the other way. */
export function nudgeOf(form: string): { x: number; y: number } {
  const socket = (at: number) => (form[at] === 'S' ? 4 : 0);
  return { x: socket(3) - socket(1), y: socket(0) - socket(2) };
}

/** The open curve of a vertical seam of height `height`, its knob `unit` long in the middle, reaching right or left. */
export function seamPath(height: number, unit: number, direction: 'left' | 'right'): string {
  const top = (height - unit) / 2;
  const sign = direction === 'left' ? -1 : 1;
  const curve = knob.map(
    (segment) =>
      `C${[0, 2, 4].map((k) => `${round(sure(segment[k + 1]) * unit * sign)} ${round(top + sure(segment[k]) * unit)}`).join(' ')}`,
  );
  return `M0 0L0 ${round(top)}${curve.join('')}L0 ${height}`;
}
