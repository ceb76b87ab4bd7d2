import { sure } from '@jigsaw/core/lists';
/** Speaks the public API as one person would from a browser. */
export class Client {
  private cookie = '';

  /** The credentials are kept, since weeks pass between two scenes of the story and sessions end. */
  constructor(
    private readonly base: string,
    private readonly credentials: { readonly email: string; readonly password: string },
  ) {}

  async get<Answer>(path: string): Promise<Answer> {
    return this.ask<Answer>('GET', path);
  }

  async post<Answer>(path: string, body?: unknown): Promise<Answer> {
    return this.ask<Answer>('POST', path, body);
  }

  async put<Answer>(path: string, body: unknown): Promise<Answer> {
    return this.ask<Answer>('PUT', path, body);
  }

  async patch<Answer>(path: string, body: unknown): Promise<Answer> {
    return this.ask<Answer>('PATCH', path, body);
  }

  async delete<Answer>(path: string): Promise<Answer> {
    return this.ask<Answer>('DELETE', path);
  }

  async upload<Answer>(
    path: string,
    name: string,
    type: string,
    content: string | Buffer,
    more: Readonly<Record<string, string>> = {},
  ): Promise<Answer> {
    const query = new URLSearchParams({ ...more, name, type });
    const body = typeof content === 'string' ? content : new Uint8Array(content);
    return this.send<Answer>('POST', `${path}?${query}`, { type: 'application/octet-stream', body });
  }

  private async ask<Answer>(method: string, path: string, body?: unknown): Promise<Answer> {
    return this.send<Answer>(
      method,
      path,
      body === undefined ? null : { type: 'application/json', body: JSON.stringify(body) },
    );
  }

  private async send<Answer>(
    method: string,
    path: string,
    content: { type: string; body: string | Uint8Array<ArrayBuffer> } | null,
  ): Promise<Answer> {
    const answer = await fetch(`${this.base}/api/${path}`, {
      method,
      headers: { Cookie: this.cookie, ...(content && { 'Content-Type': content.type }) },
      ...(content && { body: content.body }),
    });
    if (answer.status === 401 && path !== 'session') {
      await this.post('session', this.credentials);
      return this.send<Answer>(method, path, content);
    }
    const set = answer.headers.getSetCookie()[0];
    if (set) this.cookie = sure(set.split(';')[0]);
    return read<Answer>(answer, `${method} ${path}`);
  }
}

async function read<Answer>(answer: Response, what: string): Promise<Answer> {
  if (!answer.ok) throw new Error(`${what}: ${answer.status} ${await answer.text()}`);
  return (await answer.json()) as Answer;
}
