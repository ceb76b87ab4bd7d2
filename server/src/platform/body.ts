import type { CallHandler, ExecutionContext, NestInterceptor } from '@nestjs/common';
import { Inject, Injectable } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import type { Request, RequestHandler, Response } from 'express';
import express from 'express';
import type { Observable } from 'rxjs';
import { from, switchMap } from 'rxjs';
import { storable } from '@jigsaw/core/text';
import { Clock } from './clock.js';
import type { Config } from './config.js';
import { CONFIG } from './config.js';
import { problems } from './problems.js';
import { noteArrival } from './requestContext.js';

/** Of an operation that says nothing else. */
export const usualLargestKb = 256;
export const LARGEST = 'jigsaw:largest-body';

export interface Largest {
  /** In units of 1024 bytes. */
  readonly kb: number;
  /** What anyone who sends more is told. */
  readonly says: string;
}
/** No text, rubric, rule or audience nests as deep. */
const deepest = 60;
/** What a whole number of the database holds. */
const largestNumber = 2 ** 31 - 1;

/** Reads the body of a request once it is known whose it is, no further than its operation allows. Who is not let in sends nothing in. */
@Injectable()
export class BodyInterceptor implements NestInterceptor {
  private readonly readers = new Map<number, RequestHandler>();

  constructor(
    private readonly reflector: Reflector,
    private readonly clock: Clock,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  intercept(context: ExecutionContext, next: CallHandler): Observable<unknown> {
    const largest = this.reflector.get<Largest | undefined>(LARGEST, context.getHandler());
    if (largest === undefined) return next.handle();
    const http = context.switchToHttp();
    return from(this.read(http.getRequest<Request>(), http.getResponse<Response>(), largest)).pipe(
      switchMap(() => next.handle()),
    );
  }

  private async read(request: Request, response: Response, { kb, says }: Largest): Promise<void> {
    await new Promise<void>((resolve, reject) => {
      const late = setTimeout(() => {
        response.set('Connection', 'close');
        reject(problems.tooSlow());
      }, this.config.bodyWithinMs);
      this.reader(kb)(request, response, (error?: unknown) => {
        clearTimeout(late);
        if (error === undefined) resolve();
        else reject(unreadable(error, says));
      });
    });
    noteArrival(this.clock.now());
    request.body = tidied(request.body, 0);
  }

  private reader(kb: number): RequestHandler {
    const reader = this.readers.get(kb) ?? express.json({ limit: kb * 1024, inflate: false, strict: true });
    this.readers.set(kb, reader);
    return reader;
  }
}

function unreadable(error: unknown, tooLarge: string): Error {
  const { status, type } = error as { status?: unknown; type?: unknown };
  if (status === 413) return problems.tooLarge(tooLarge);
  if (type === 'request.aborted') return problems.invalidInput('The request ended before it was whole.');
  if (status === 415)
    return problems.invalidInput('The request could not be read: send JSON in UTF-8, not compressed.');
  return problems.invalidInput('The request could not be read.');
}

/** The body as it can be kept: texts and names of fields without what no database holds, numbers that it can count with, nested as deep as anything is. */
export function tidied(value: unknown, depth: number): unknown {
  if (typeof value === 'string') return storable(value);
  if (typeof value === 'number' && Math.abs(value) > largestNumber)
    throw problems.invalidInput(
      `A number here is too large; ${largestNumber.toLocaleString('en')} is the most.`,
    );
  if (typeof value !== 'object' || value === null) return value;
  if (depth > deepest) throw problems.invalidInput('What was sent is nested too deep to be read.');
  if (Array.isArray(value)) return value.map((each) => tidied(each, depth + 1));
  return Object.fromEntries(
    Object.entries(value).map(([key, each]) => [storable(key), tidied(each, depth + 1)]),
  );
}
