import { TestEnvironment } from 'jest-environment-jsdom';

/** jsdom with what it lacks and Node.js has; the rest of a browser that our pages touch is stubbed. */
export default class BrowserEnvironment extends TestEnvironment {
  override async setup(): Promise<void> {
    await super.setup();
    const { global: page } = this;
    Object.assign(page, {
      fetch,
      Request,
      Response,
      Headers,
      AbortController,
      AbortSignal,
      ReadableStream,
      TransformStream,
      TextEncoder,
      TextDecoder,
      TextDecoderStream,
      structuredClone,
    });
    class Silent {
      observe(): void {}
      unobserve(): void {}
      disconnect(): void {}
      addEventListener(): void {}
      close(): void {}
    }
    Object.assign(page, { ResizeObserver: Silent, IntersectionObserver: Silent, EventSource: Silent });
    Object.assign(page, {
      matchMedia: () => ({ matches: false, addEventListener() {}, removeEventListener() {} }),
    });
  }
}
