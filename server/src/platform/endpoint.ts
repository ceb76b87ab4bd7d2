import { setImmediate } from 'node:timers/promises';
import type {
  ArgumentMetadata,
  CallHandler,
  ExecutionContext,
  NestInterceptor,
  PipeTransform,
} from '@nestjs/common';
import {
  applyDecorators,
  Body,
  Delete,
  Get,
  HttpCode,
  Injectable,
  Param,
  Patch,
  Post,
  Put,
  SetMetadata,
} from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import { ApiBody, ApiOperation, ApiResponse } from '@nestjs/swagger';
import type { ApiBodyOptions } from '@nestjs/swagger';
import type { Observable } from 'rxjs';
import { concatMap } from 'rxjs';
import { z } from 'zod';
import type { Largest } from './body.js';
import { LARGEST, usualLargestKb } from './body.js';
import { problems } from './problems.js';
import { sayIssue } from './sayIssue.js';

interface EndpointShape {
  /** Operation id: unique over the API. */
  readonly id: string;
  readonly does: string;
  readonly body?: z.ZodType;
  /** Of the body, in units of 1024 bytes, and what anyone who sends more is told. */
  readonly largestKb?: number;
  readonly tooLarge?: string;
  /** A stream or a file: it goes on for as long as the line takes, and does little. */
  readonly lasts?: boolean;
  /** Left out: the handler writes the answer itself (a stream). */
  readonly answer?: z.ZodType;
}

z.config({ localeError: sayIssue });

type OpenApiSchema = Extract<ApiBodyOptions, { schema: unknown }>['schema'];

const methods = { GET: Get, POST: Post, PUT: Put, PATCH: Patch, DELETE: Delete };
const ANSWER = 'jigsaw:answer';
export const LASTS = 'jigsaw:lasts';
const longer = 'This is too long. Shorten it, or split it into two parts.';

/** One route: its place, its name in the OpenAPI document, and the schemas it takes and gives. */
export function Endpoint(
  route: `${keyof typeof methods} ${string}`,
  { id, does, body, largestKb = usualLargestKb, tooLarge = longer, lasts = false, answer }: EndpointShape,
): MethodDecorator {
  const [method, path] = route.split(' ') as [keyof typeof methods, string];
  return applyDecorators(
    methods[method](path),
    HttpCode(200),
    SetMetadata(LASTS, lasts),
    ApiOperation({ operationId: id, summary: does }),
    ...(body
      ? [
          ApiBody({ schema: jsonSchema(body, 'input') }),
          SetMetadata(LARGEST, { kb: largestKb, says: tooLarge } satisfies Largest),
        ]
      : []),
    ...(answer
      ? [ApiResponse({ status: 200, schema: jsonSchema(answer, 'output') }), SetMetadata(ANSWER, answer)]
      : [ApiResponse({ status: 200 })]),
  );
}

const jsonSchema = (schema: z.ZodType, io: 'input' | 'output') =>
  z.toJSONSchema(schema, {
    target: 'openapi-3.0',
    io,
    unrepresentable: 'any',
    reused: 'inline',
  }) as OpenApiSchema;

/** The request's body, checked. Every fault is named with its place. */
export const Takes = (schema: z.ZodType): ParameterDecorator => Body(new ParseBody(schema));

/** An id from the path. One that is no id at all is answered like one that does not exist. */
export const IdParam = (name: string, schema: z.ZodType): ParameterDecorator =>
  Param(name, new ParseId(schema));

class ParseBody implements PipeTransform {
  constructor(private readonly schema: z.ZodType) {}

  transform(value: unknown, _metadata: ArgumentMetadata): unknown {
    const parsed = this.schema.safeParse(value);
    if (parsed.success) return parsed.data;
    const issues = parsed.error.issues.map((issue) => ({
      path: issue.path.join('.'),
      message: issue.message,
    }));
    throw problems.invalidInput(issues[0]?.message, { issues });
  }
}

class ParseId implements PipeTransform {
  constructor(private readonly schema: z.ZodType) {}

  transform(value: unknown): unknown {
    const parsed = this.schema.safeParse(value);
    if (!parsed.success) throw problems.notFound();
    return parsed.data;
  }
}

/** What leaves the server is what the contract names: fields it does not know are dropped here. */
@Injectable()
export class AnswerInterceptor implements NestInterceptor {
  constructor(private readonly reflector: Reflector) {}

  intercept(context: ExecutionContext, next: CallHandler): Observable<unknown> {
    const schema = this.reflector.get<z.ZodType | undefined>(ANSWER, context.getHandler());
    if (!schema) return next.handle();
    return next.handle().pipe(
      // A large answer is made, checked and written in turns of their own, and others have theirs between them.
      concatMap(async (value) => {
        await setImmediate();
        const answer = schema.parse(value);
        await setImmediate();
        return answer;
      }),
    );
  }
}
