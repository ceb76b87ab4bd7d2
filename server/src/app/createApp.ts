import 'reflect-metadata';
import { existsSync } from 'node:fs';
import type { IncomingMessage, Server, ServerResponse } from 'node:http';
import path from 'node:path';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { NestFactory } from '@nestjs/core';
import { DocumentBuilder, SwaggerModule } from '@nestjs/swagger';
import compression from 'compression';
import cookieParser from 'cookie-parser';
import type { NextFunction, Request, Response } from 'express';
import staticGzip from 'express-static-gzip';
import helmet from 'helmet';
import { Logger } from 'nestjs-pino';
import { AppModule } from './app.module.js';
import { measureRequests } from './metrics.js';
import { takeSitIn } from '../identity/index.js';
import { Clock } from '../platform/clock.js';
import type { Config } from '../platform/config.js';
import { CONFIG } from '../platform/config.js';
import { sendProblem } from '../platform/problem.filter.js';
import { problems } from '../platform/problems.js';
import { rememberPage } from '../platform/requestContext.js';

export type App = NestExpressApplication;

/** A server that is ready to listen: migrated, guarded, with its pages if there are any. */
export async function createApp(config: Config, clock: Clock = new Clock()): Promise<App> {
  const app = await NestFactory.create<App>(AppModule.with(config, clock), {
    bufferLogs: true,
    forceCloseConnections: true,
    abortOnError: false,
    bodyParser: false,
  });
  app.useLogger(app.get(Logger));
  app.disable('x-powered-by');
  app.set('trust proxy', config.trustedProxies);
  app.use(takeSitIn);
  app.use(
    helmet({
      contentSecurityPolicy: {
        directives: {
          defaultSrc: ["'self'"],
          scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          // What was recorded is played before it is sent.
          mediaSrc: ["'self'", 'blob:'],
          workerSrc: ["'self'", 'blob:'],
          connectSrc: ["'self'"],
          fontSrc: ["'self'"],
          // Beside itself, at phone width; nowhere else.
          frameAncestors: [(request) => (isSitInPage(request) ? "'self'" : "'none'")],
          upgradeInsecureRequests: config.isSecure ? [] : null,
        },
      },
      strictTransportSecurity: config.isSecure,
    }),
  );
  app.use(measureRequests);
  app.use('/api', keptNowhere);
  app.use(cookieParser());
  app.use(sameOriginOnly(new URL(config.publicUrl).origin));
  app.use(rememberPage);
  app.use(compression({ filter: isCompressed, threshold: 1024, level: 4 }));
  if (config.webFolder !== null) servePages(app, config.webFolder);
  app.setGlobalPrefix('api');
  app.enableShutdownHooks(['SIGTERM', 'SIGINT']);
  describeApi(app);
  await app.init();
  cutWhatStalls(app.getHttpServer(), config);
  return app;
}

const isSitInPage = ({ url = '' }: IncomingMessage): boolean => url.startsWith('/sit-in/');

/** Names and marks do not stay on a machine that several people use. Anyone who has the page open holds on to the last answer and its ETag. */
const keptNowhere = (_request: Request, response: Response, next: NextFunction): void => {
  response.setHeader('Cache-Control', 'private, no-store');
  next();
};

/** Answers, not what comes bit by bit (it would be held back) nor files, whose length is told beforehand. */
const isCompressed = (request: Request, response: Response): boolean =>
  !/event-stream|ndjson/.test(String(response.getHeader('Content-Type'))) &&
  response.getHeader('Content-Disposition') === undefined &&
  compression.filter(request, response);

/** A large file over a slow line is let through as long as it moves; what stands still is cut and holds nothing. */
function cutWhatStalls(server: Server, { idleWithinMs }: Config): void {
  server.requestTimeout = 0;
  server.setTimeout(idleWithinMs);
}

/** A write that a browser sends from another site is not carried out, whatever cookies come with it.
 * @param ownOrigin as people know this server: a proxy before it may have put another name into Host. */
const sameOriginOnly =
  (ownOrigin: string) =>
  (request: Request, response: Response, next: NextFunction): void => {
    if (['GET', 'HEAD', 'OPTIONS'].includes(request.method)) return next();
    const { origin } = request.headers;
    const isOther =
      origin !== undefined
        ? origin !== ownOrigin && originHost(origin) !== request.headers.host
        : request.headers['sec-fetch-site'] === 'cross-site';
    if (isOther) sendProblem(response, problems.otherOrigin());
    else next();
  };

function originHost(origin: string): string | null {
  return URL.canParse(origin) ? new URL(origin).host : null;
}

/** Built files by name, kept for long since their names change with their content; every other address is the one page. */
function servePages(app: App, folder: string): void {
  const page = path.join(folder, 'index.html');
  if (!existsSync(page)) throw new Error(`the pages are not built: ${page} is missing`);
  const files = staticGzip(folder, {
    index: false,
    enableBrotli: true,
    orderPreference: ['br', 'gz'],
    serveStatic: {
      setHeaders: (response: ServerResponse, file: string) => {
        response.setHeader(
          'Cache-Control',
          file.includes(`${path.sep}assets${path.sep}`) ? 'public, max-age=31536000, immutable' : 'no-cache',
        );
      },
    },
  });
  const isOfApi = (request: Request) => request.path.startsWith('/api/');
  app.use((request: Request, response: Response, next: NextFunction) => {
    if (isOfApi(request)) next();
    else files(request, response, next);
  });
  app.use((request: Request, response: Response, next: NextFunction) => {
    const isPage =
      (request.method === 'GET' || request.method === 'HEAD') &&
      !isOfApi(request) &&
      !/\.\w+$/.test(request.path);
    if (!isPage) return next();
    response.setHeader('Cache-Control', 'no-cache');
    response.sendFile(page);
  });
}

function describeApi(app: App): void {
  const about = new DocumentBuilder()
    .setTitle('Jigsaw Room')
    .setVersion('1')
    .addCookieAuth(app.get<Config>(CONFIG).cookieName)
    .build();
  SwaggerModule.setup('api/docs', app, () => SwaggerModule.createDocument(app, about), {
    jsonDocumentUrl: 'api/openapi.json',
    ui: process.env['NODE_ENV'] !== 'production',
  });
}
