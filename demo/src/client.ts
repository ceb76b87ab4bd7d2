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

  async upload<Answer>(path: string, name: string, type: string, content: string | Buffer): Promise<Answer> {
    const query = new URLSearchParams({ name, type });
    const answer = await fetch(`${this.base}/api/${path}?${query}`, {
      method: 'POST',
      headers: { Cookie: this.cookie, 'Content-Type': 'application/octet-stream' },
      body: typeof content === 'string' ? content : new Uint8Array(content),
    });
    return read<Answer>(answer, `POST ${path}`);
  }

  private async ask<Answer>(method: string, path: string, body?: unknown): Promise<Answer> {
    const answer = await fetch(`${this.base}/api/${path}`, {
      method,
      headers: { Cookie: this.cookie, ...(body === undefined ? {} : { 'Content-Type': 'application/json' }) },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
    if (answer.status === 401 && path !== 'session') {
      await this.post('session', this.credentials);
      return this.ask<Answer>(method, path, body);
    }
    const set = answer.headers.getSetCookie()[0];
    if (set) this.cookie = set.split(';')[0]!;
    return read<Answer>(answer, `${method} ${path}`);
  }
}

async function read<Answer>(answer: Response, what: string): Promise<Answer> {
  if (!answer.ok) throw new Error(`${what}: ${answer.status} ${await answer.text()}`);
  return (await answer.json()) as Answer;
}
