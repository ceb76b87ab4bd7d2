import type { IncomingMessage, Server, ServerResponse } from 'node:http';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { ZodError } from 'zod';
import { bundleOf } from './bundle.js';
import { coursePage, frontPage } from './pages.js';
import type { School, SchoolCourse } from './school.js';
import { Enrolled, Mood, SchoolCourse as SchoolCourseShape } from './school.js';

const largestForm = 1_000_000;

/** Stands in for a school's registrar: the lists that Jigsaw Room fetches, and pages on which to make things happen to them.
 * @param port 0: any that is free. */
export async function openRegistrar(
  school: School,
  port: number,
): Promise<{ url: string; close(): Promise<void> }> {
  const server = createServer((request, response) => {
    answer(school, request, response).catch((error: unknown) => {
      const isTheirs = error instanceof ZodError || error instanceof SyntaxError;
      send(
        response,
        isTheirs ? 422 : 500,
        'text/plain',
        error instanceof ZodError ? error.issues.map((issue) => issue.message).join(' ') : String(error),
      );
    });
  });
  await listen(server, port).catch(() => listen(server, 0)); // someone else has that port
  const { port: taken } = server.address() as AddressInfo;
  return {
    url: `http://127.0.0.1:${taken}`,
    close: () =>
      new Promise((resolve) => {
        server.close(() => resolve());
        server.closeAllConnections();
      }),
  };
}

const listen = (server: Server, port: number): Promise<void> =>
  new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', () => {
      server.off('error', reject);
      resolve();
    });
  });

async function answer(school: School, request: IncomingMessage, response: ServerResponse): Promise<void> {
  const url = new URL(request.url ?? '/', 'http://registrar.invalid');
  const [first, code, what] = url.pathname.split('/').slice(1).map(decodeURIComponent);
  const course = code === undefined ? undefined : school.find(code);
  if (request.method === 'POST' || request.method === 'PUT') {
    const isForm = request.headers['content-type']?.startsWith('application/x-www-form-urlencoded');
    const text = await textOf(request);
    act(
      school,
      course,
      { first, what },
      isForm ? Object.fromEntries(new URLSearchParams(text)) : (JSON.parse(text) as Record<string, unknown>),
    );
    if (!isForm) return send(response, 200, 'application/json', '{}');
    response.writeHead(303, { Location: request.headers.referer ?? '/' }).end();
    return;
  }
  if (first === '') return send(response, 200, 'text/html', frontPage(school));
  if (first === 'courses' && course && what === undefined)
    return send(response, 200, 'text/html', coursePage(course, school.mood));
  // From here on it is what others fetch, and it answers as its mood is.
  if (school.mood === 'away') return send(response, 503, 'text/plain', 'Closed for stocktaking.');
  if (school.mood === 'nonsense')
    return send(response, 200, 'text/html', '<h1>Welcome to our new portal!</h1>');
  if (first === 'courses.json')
    return send(
      response,
      200,
      'application/json',
      JSON.stringify({ courses: taughtBy(school, url.searchParams.get('teacher')) }),
    );
  if (first === 'courses' && course && what === 'roster.zip')
    return send(response, 200, 'application/zip', bundleOf(course, new Date()));
  send(response, 404, 'text/plain', 'There is no such course.');
}

const wordOf = (value: unknown) => (typeof value === 'string' ? value : '');

function act(
  school: School,
  course: SchoolCourse | undefined,
  { first, what }: { readonly first: string | undefined; readonly what: string | undefined },
  body: Record<string, unknown>,
): void {
  const [email, section] = [wordOf(body['email']), wordOf(body['section'])];
  if (first === 'mood') school.mood = Mood.parse(body['mood']);
  else if (first === 'courses' && what === undefined) school.put(SchoolCourseShape.parse(body));
  else if (course && what === 'enrol')
    school.enrol(course.code, Enrolled.parse({ ...body, section: body['section'] || null }));
  else if (course && what === 'drop') school.drop(course.code, email);
  else if (course && what === 'seat') school.seat(course.code, email, section || null);
}

const taughtBy = (school: School, teacher: string | null) =>
  school
    .list()
    .filter(({ people }) =>
      people.some(
        (person) => person.role === 'teacher' && person.email.toLowerCase() === teacher?.toLowerCase(),
      ),
    )
    .map(({ code, title, people }) => ({ code, title, people: people.length }));

async function textOf(request: IncomingMessage): Promise<string> {
  let text = '';
  for await (const piece of request) {
    text += String(piece);
    if (text.length > largestForm)
      throw new SyntaxError('That is more than a registrar writes down at once.');
  }
  return text;
}

function send(response: ServerResponse, status: number, type: string, body: string | Uint8Array): void {
  response
    .writeHead(status, { 'Content-Type': type.startsWith('text/') ? `${type}; charset=utf-8` : type })
    .end(body);
}
