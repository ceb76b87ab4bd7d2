import '@testing-library/jest-dom/jest-globals';
import { afterEach, jest } from '@jest/globals';
import { cleanup, configure } from '@testing-library/react';

// What could not be found is enough to read; the whole page would bury it.
configure({
  getElementError: (message) => new Error(message?.split('\n\n')[0] ?? 'not found'),
  asyncUtilTimeout: 60_000,
});
afterEach(() => {
  cleanup();
  sessionStorage.clear(); // what one test typed is not the next one's
});
// Whole pages in jsdom are slow on a busy machine; a test that hangs is still ended.
jest.setTimeout(300_000);

// jsdom lays nothing out; lists that show only what is in view need a view.
Object.defineProperties(HTMLElement.prototype, {
  offsetHeight: { get: () => 30 },
  offsetWidth: { get: () => 1280 },
  clientHeight: { get: () => 600 },
  clientWidth: { get: () => 1280 },
});
// The text editor asks where its caret stands.
Object.assign(Range.prototype, { getClientRects: () => [], getBoundingClientRect: () => new DOMRect() });
Object.assign(document, { elementFromPoint: () => null });
Element.prototype.scrollIntoView = () => undefined;

// jsdom's files cannot be read as browsers' are.
(Blob.prototype as { arrayBuffer?: () => Promise<ArrayBuffer> }).arrayBuffer ??= function (
  this: Blob,
): Promise<ArrayBuffer> {
  return new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(reader.result as ArrayBuffer);
    reader.onerror = () => reject(reader.error ?? new Error('the file could not be read'));
    reader.readAsArrayBuffer(this);
  });
};
