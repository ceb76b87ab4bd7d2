/** The one platform class that the core reads text with; it exists in browsers and in Node.js alike. */
declare class TextDecoder {
  constructor(label?: string, options?: { fatal?: boolean; ignoreBOM?: boolean });
  decode(input?: Uint8Array, options?: { readonly stream?: boolean }): string;
}
