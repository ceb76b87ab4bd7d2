/** Measures how much script the first page loads, compressed, and fails above the limit. */
import { existsSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { gzipSync } from 'node:zlib';

const limitBytes = 250_000;
const dist = path.join(path.dirname(path.dirname(fileURLToPath(import.meta.url))), 'web/dist');

/** What a script imports at once, itself included; what it imports later is left out. */
function closure(file, seen) {
  if (seen.has(file) || !existsSync(file)) return seen;
  seen.add(file);
  for (const [, name] of readFileSync(file, 'utf8').matchAll(/(?:import|from)\s*"(\.\/[^"]+\.js)"/g))
    closure(path.join(path.dirname(file), name), seen);
  return seen;
}

const page = readFileSync(path.join(dist, 'index.html'), 'utf8');
const scripts = new Set();
for (const [, name] of page.matchAll(/(?:src|href)="(\/assets\/[^"]+\.js)"/g))
  closure(path.join(dist, name), scripts);
const bytes = [...scripts].reduce((sum, file) => sum + gzipSync(readFileSync(file)).length, 0);
console.log(
  `first page: ${Math.round(bytes / 1000)} kB of script in ${scripts.size} files, ${Math.round((100 * bytes) / limitBytes)} % of the limit`,
);
if (bytes > limitBytes) process.exitCode = 1;
