import { readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { brotliCompressSync, constants, gzipSync } from 'node:zlib';
import type { Plugin } from 'vite';

/** Of what is sent as text; smaller files gain nothing. */
const compressed = /\.(js|css|html|svg|json|wasm)$/;
const leastBytes = 1024;

/** Beside each built file its compressed forms, made once and as small as they get: the server sends them as they are. */
export function precompress(): Plugin {
  let folder = '';
  return {
    name: 'precompress',
    apply: 'build',
    configResolved(config) {
      folder = path.resolve(config.root, config.build.outDir);
    },
    closeBundle() {
      for (const name of readdirSync(folder, { recursive: true, encoding: 'utf8' })) {
        const file = path.join(folder, name);
        if (!compressed.test(name) || statSync(file).size < leastBytes) continue;
        const content = readFileSync(file);
        writeFileSync(`${file}.gz`, gzipSync(content, { level: 9 }));
        writeFileSync(
          `${file}.br`,
          brotliCompressSync(content, { params: { [constants.BROTLI_PARAM_QUALITY]: 11 } }),
        );
      }
    },
  };
}
