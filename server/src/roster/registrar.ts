import { Inject, Injectable } from '@nestjs/common';
import { z } from 'zod';
import type { ReadTable } from '@jigsaw/core/roster';
import type { Config } from '../platform/config.js';
import { CONFIG } from '../platform/config.js';
import { problems } from '../platform/problems.js';
import { ClassFiles } from './classFiles.js';

const patienceMs = 10_000;
const largestAnswerBytes = 20_000_000;

const Courses = z.object({
  courses: z
    .array(z.object({ code: z.string().max(80), title: z.string().max(300), people: z.number().int() }))
    .max(5000),
});
export type RegistrarCourses = z.infer<typeof Courses>['courses'];

/** The school's registrar, over HTTP: a list of what someone teaches, and a OneRoster CSV bundle of each course. Whatever it answers is doubted. */
@Injectable()
export class Registrar {
  constructor(
    @Inject(CONFIG) private readonly config: Config,
    private readonly files: ClassFiles,
  ) {}

  get isThere(): boolean {
    return this.config.registrarUrl !== null;
  }

  /** What someone with this address teaches.
   * @throws Problem registrar-away, with a sentence for people. */
  async coursesOf(teacher: string): Promise<RegistrarCourses> {
    const bytes = await this.fetch(`/courses.json?${new URLSearchParams({ teacher }).toString()}`);
    try {
      return Courses.parse(JSON.parse(new TextDecoder().decode(bytes))).courses;
    } catch {
      throw nonsense();
    }
  }

  async roster(course: string): Promise<Extract<ReadTable, { ok: true }>['table']> {
    const bytes = await this.fetch(`/courses/${encodeURIComponent(course)}/roster.zip`);
    const read = await this.files.archive('registrar', bytes);
    // A list of no one is nonsense too: following it would empty the class.
    if (!read.ok) throw nonsense();
    return read.table;
  }

  private async fetch(path: string): Promise<Uint8Array<ArrayBuffer>> {
    if (this.config.registrarUrl === null) throw away('No registrar is set up here.');
    let answer: Response;
    try {
      answer = await fetch(`${this.config.registrarUrl}${path}`, {
        signal: AbortSignal.timeout(patienceMs),
        redirect: 'error',
      });
      if (answer.ok && answer.body) return await collect(answer.body);
    } catch (error) {
      if (error instanceof TooMuch) throw nonsense();
      throw away(
        error instanceof DOMException && error.name === 'TimeoutError'
          ? 'The registrar took longer than 10 seconds. Nothing was changed; try again later.'
          : 'The registrar cannot be reached. Nothing was changed; try again later, or import a file.',
      );
    }
    throw away(
      answer.status === 404
        ? 'The registrar no longer has this course. Nothing was changed; choose another of its courses.'
        : `The registrar answered with an error (${answer.status}). Nothing was changed; try again later.`,
    );
  }
}

class TooMuch extends Error {}

async function collect(body: ReadableStream<Uint8Array>): Promise<Uint8Array<ArrayBuffer>> {
  const pieces: Uint8Array[] = [];
  let total = 0;
  for await (const piece of body) {
    total += piece.byteLength;
    if (total > largestAnswerBytes) throw new TooMuch();
    pieces.push(piece);
  }
  return new Uint8Array(Buffer.concat(pieces));
}

const away = (sentence: string) => problems.registrarAway(sentence);
const nonsense = () =>
  problems.registrarAway(
    'The registrar answered with something that is not a roster. Nothing was changed; tell the person who runs it.',
  );
