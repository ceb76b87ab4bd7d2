/** Draws docs/floors.svg from the code: the areas of each floor from the ground up, and an arrow where one imports another. */
import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
const areas = JSON.parse(readFileSync(path.join(root, 'areas.json'), 'utf8'));
const floors = ['core', 'contract', 'server', 'web'];
const box = { width: 108, height: 20, gap: 8 };
const column = 250;
const margin = { left: 20, top: 44, bottom: 16 };
const rows = Math.max(...floors.map((floor) => areas[floor].length));
const size = {
  width: margin.left + floors.length * column,
  height: margin.top + rows * (box.height + box.gap) + margin.bottom,
};

/** Pairs of areas of one floor, "core roster sets", each once. */
function arrows() {
  const args = [
    '--config',
    '.dependency-cruiser.cjs',
    '--output-type',
    'json',
    ...floors.map((floor) => `${floor}/src`),
  ];
  const cruised = execFileSync('node_modules/.bin/depcruise', args, { cwd: root, maxBuffer: 2 ** 28 });
  const pairs = new Set();
  for (const { source, dependencies } of JSON.parse(cruised).modules) {
    if (/[.]test[.]|[/]test[/]/.test(source)) continue;
    for (const { resolved } of dependencies) {
      const [from, to] = [areaOf(source), areaOf(resolved)];
      if (from && to && from.floor === to.floor && from.area !== to.area)
        pairs.add(`${from.floor} ${from.area} ${to.area}`);
    }
  }
  return [...pairs].sort();
}

function areaOf(file) {
  const found = /^(\w+)[/]src[/]([^/]+?)(?:[.]tsx?|[/].*)$/.exec(file);
  return found && areas[found[1]]?.includes(found[2]) ? { floor: found[1], area: found[2] } : null;
}

const x = (floor) => margin.left + floors.indexOf(floor) * column;
const y = (floor, area) =>
  size.height - margin.bottom - (areas[floor].indexOf(area) + 1) * (box.height + box.gap) + box.gap;

function arrow(pair) {
  const [floor, from, to] = pair.split(' ');
  const [start, end] = [y(floor, from) + box.height / 2, y(floor, to) + box.height / 2];
  const right = x(floor) + box.width;
  const reach = 14 + Math.abs(start - end) * 0.22;
  const isDown = areas[floor].indexOf(from) > areas[floor].indexOf(to);
  return `<path d="M${right} ${start} C${right + reach} ${start} ${right + reach} ${end} ${right + 3} ${end}" class="${isDown ? 'down' : 'up'}"/>`;
}

const label = (floor, area) =>
  `<rect x="${x(floor)}" y="${y(floor, area)}" width="${box.width}" height="${box.height}" rx="3"/>
<text x="${x(floor) + 8}" y="${y(floor, area) + 14}">${area}</text>`;

const drawn = arrows();
const svg = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${size.width} ${size.height}" role="img">
<title>Areas of each floor from the ground up; an arrow from each area to those it imports</title>
<style>
text { font: 12px sans-serif; fill: #1c1a17 }
.floor { font-weight: 700; font-size: 14px }
rect { fill: #f4efe6; stroke: #8a8172 }
path { fill: none; stroke: #2f5d62; stroke-opacity: .38; marker-end: url(#tip) }
.up { stroke: #b3261e; stroke-opacity: 1 }
</style>
<defs><marker id="tip" viewBox="0 0 6 6" refX="5" refY="3" markerWidth="5" markerHeight="5" orient="auto"><path d="M0 0 6 3 0 6z" style="fill:#2f5d62;stroke:none"/></marker></defs>
<rect width="100%" height="100%" style="fill:#fffdf8;stroke:none"/>
${floors.map((floor) => `<text class="floor" x="${x(floor)}" y="26">${floor}</text>`).join('\n')}
${drawn.map(arrow).join('\n')}
${floors.flatMap((floor) => areas[floor].map((area) => label(floor, area))).join('\n')}
</svg>
`;
writeFileSync(path.join(root, 'docs/floors.svg'), svg);
const climbing = drawn.filter((pair) => arrow(pair).includes('class="up"')).length;
console.log(`${drawn.length} arrows between areas, ${climbing} of them up`);
