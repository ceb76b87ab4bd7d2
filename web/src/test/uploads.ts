const RealRequest = globalThis.XMLHttpRequest;

/** A request that a test answers by hand. */
class StandIn {
  static sent: StandIn[] = [];
  readonly upload: { onprogress?: (event: object) => void; onload?: () => void } = {};
  onload?: () => void;
  onabort?: () => void;
  status = 0;
  responseText = '';
  address = '';
  isAborted = false;
  open(_method: string, address: string): void {
    this.address = address;
  }
  setRequestHeader(): void {}
  getResponseHeader(): string {
    return 'application/json';
  }
  send(): void {
    StandIn.sent.push(this);
  }
  abort(): void {
    this.isAborted = true;
    this.onabort?.();
  }
  answer(status: number, body: unknown): void {
    this.status = status;
    this.responseText = JSON.stringify(body);
    this.onload?.();
  }
}

/** Answers every upload by hand.
 * @returns the uploads as they are sent */
export function standInForUploads(): readonly StandIn[] {
  StandIn.sent = [];
  globalThis.XMLHttpRequest = StandIn as never;
  return StandIn.sent;
}

/** For after each test that stood in. */
export function realUploads(): void {
  globalThis.XMLHttpRequest = RealRequest;
}
