import { storable } from '../text/index.js';

export type Encoding = 'UTF-8' | 'UTF-16' | 'Windows-1252';

export type Decoded =
  | { readonly ok: true; readonly text: string; readonly encoding: Encoding }
  | { readonly ok: false; readonly code: 'empty' | 'spreadsheet' | 'pdf' | 'binary' };

const startsWith = (bytes: Uint8Array, ...head: number[]) => head.every((byte, at) => bytes[at] === byte);

/** The text of a file of unknown encoding. UTF-8 and UTF-16 with or without a byte order mark, else Windows-1252. */
export function decode(bytes: Uint8Array): Decoded {
  if (bytes.length === 0) return { ok: false, code: 'empty' };
  if (startsWith(bytes, 0x50, 0x4b, 0x03, 0x04) || startsWith(bytes, 0xd0, 0xcf, 0x11, 0xe0))
    return { ok: false, code: 'spreadsheet' };
  if (startsWith(bytes, 0x25, 0x50, 0x44, 0x46)) return { ok: false, code: 'pdf' };

  const utf16 = utf16Flavour(bytes);
  if (utf16) return textOr(new TextDecoder(utf16).decode(bytes), 'UTF-16');
  try {
    return textOr(new TextDecoder('utf-8', { fatal: true }).decode(bytes), 'UTF-8');
  } catch {
    // As a stream: in one piece Node 20 reads 0x80 to 0x9F, the euro sign and the typographic marks among them, as control characters.
    // A single byte is a whole character, so nothing is left in the stream.
    return textOr(new TextDecoder('windows-1252').decode(bytes, { stream: true }), 'Windows-1252');
  }
}

function textOr(text: string, encoding: Encoding): Decoded {
  if (text.trim() === '') return { ok: false, code: 'empty' };
  return looksBinary(text) ? { ok: false, code: 'binary' } : { ok: true, text: storable(text), encoding };
}

/** Latin text in UTF-16 has a zero in nearly every second byte, which no single-byte text has. */
function utf16Flavour(bytes: Uint8Array): 'utf-16le' | 'utf-16be' | null {
  if (startsWith(bytes, 0xff, 0xfe)) return 'utf-16le';
  if (startsWith(bytes, 0xfe, 0xff)) return 'utf-16be';
  const sample = bytes.subarray(0, 2000);
  const zeros = { even: 0, odd: 0 };
  sample.forEach((byte, at) => {
    if (byte === 0) zeros[at % 2 === 0 ? 'even' : 'odd'] += 1;
  });
  const half = sample.length / 2;
  if (zeros.odd > half * 0.7 && zeros.even < half * 0.1) return 'utf-16le';
  if (zeros.even > half * 0.7 && zeros.odd < half * 0.1) return 'utf-16be';
  return null;
}

function looksBinary(text: string): boolean {
  const sample = text.slice(0, 4000);
  // eslint-disable-next-line no-control-regex -- control characters are what tells binary from text
  const odd = sample.match(/[\u0000-\u0008\u000e-\u001a\u001c-\u001f\ufffd]/g)?.length ?? 0;
  return sample.includes('\u0000') || odd > sample.length * 0.02;
}
