import { randomUUID } from 'node:crypto';
import { existsSync } from 'node:fs';
import { NestFactory } from '@nestjs/core';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { DocumentBuilder, type OpenAPIObject, SwaggerModule } from '@nestjs/swagger';
import compression from 'compression';
import cookieParser from 'cookie-parser';
import type { NextFunction, Request, Response } from 'express';
import express from 'express';
import helmet from 'helmet';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import { FloorCommands, FloorTasks, withUnions } from './floor/index.js';
import { AccessGuard } from './identity/index.js';
import { type Config, formPipe, GoodEnding, Metrics, ProblemFilter, shallow } from './platform/index.js';
import { AppModule } from './app.module.js';

const SIGNED_MESSAGES = /^\/api\/channels\/[^/?]+\/webhook(\?|$)/;
const BODY_LIMIT = '512kb';

/** Builds the application. The database is not touched until `DataSource.initialize`. */
export async function createApp(config: Config, log: Logger, webRoot?: string): Promise<NestExpressApplication> {
  // The made-up business is no part of a real house: its code is read only where it is asked for.
  const more = config.VECTRUM_DEMO ? [(await import('./demo/index.js')).DemoModule] : [];
  const app = await NestFactory.create<NestExpressApplication>(AppModule.with(config, log, more), {
    logger: false,
    rawBody: true,
    // Only what is said below is read: a form that another page sends by itself is no request of ours.
    bodyParser: false,
    abortOnError: false,
  });
  // What a channel sends is signed as bytes, and is kept as it came where it is not even JSON.
  app.useBodyParser('raw', { limit: BODY_LIMIT, type: (request) => SIGNED_MESSAGES.test(request.url ?? '') });
  app.useBodyParser('json', { limit: BODY_LIMIT });
  app.use(app.get(Metrics).timed);
  app.use(shallow);
  app.disable('x-powered-by');
  // A proxy on this machine says where a request came from; anybody else may claim what they like.
  app.set('trust proxy', 'loopback');
  app.use(
    pinoHttp({
      logger: log,
      genReqId: () => randomUUID(),
      customLogLevel: (_q, r, e) => (e || r.statusCode >= 500 ? 'error' : r.statusCode >= 400 ? 'info' : 'debug'),
      serializers: {
        req: (r: { id: string; method: string; url: string }) => ({ id: r.id, method: r.method, url: r.url }),
        res: (r: { statusCode: number }) => ({ statusCode: r.statusCode }),
      },
    }),
  );
  app.use(
    helmet({
      contentSecurityPolicy: {
        directives: {
          'upgrade-insecure-requests': null,
          'style-src': ["'self'", "'unsafe-inline'"],
          'img-src': ["'self'", 'data:', 'blob:'],
          // Barcodes are read from the camera's picture by WebAssembly in a worker.
          'script-src': ["'self'", "'wasm-unsafe-eval'"],
          'worker-src': ["'self'"],
        },
      },
      strictTransportSecurity: false,
    }),
  );
  // Events must not wait in a buffer until there are enough of them to be worth packing.
  app.use(compression({ filter: (request, response) => !request.path.endsWith('/live') && compression.filter(request, response) }));
  app.use(app.get(GoodEnding).lastAnswers);
  app.use(cookieParser());
  app.useGlobalPipes(formPipe());
  app.useGlobalGuards(app.get(AccessGuard));
  app.useGlobalFilters(new ProblemFilter(log));
  serveWeb(app, webRoot);
  SwaggerModule.setup('api/docs', app, () => openApi(app), {
    jsonDocumentUrl: 'api/openapi.json',
    ui: false,
    raw: ['json'],
  });
  app.get(GoodEnding).watch(app.getHttpServer());
  app.enableShutdownHooks();
  return app;
}

/** The API's document. The floor's commands and tasks are unions of what the modules have registered at its doors. */
export function openApi(app: NestExpressApplication): OpenAPIObject {
  const about = new DocumentBuilder()
    .setTitle('Vectrum')
    .setVersion('0.1.0')
    .setDescription('Mutating requests carry an Idempotency-Key; problems are application/problem+json.')
    .build();
  const commands = app.get(FloorCommands).shapes();
  const tasks = app.get(FloorTasks).bundles();
  const document = SwaggerModule.createDocument(app, about, {
    operationIdFactory: (controller, method) => `${controller.replace('Controller', '')}_${method}`,
    extraModels: [...commands, ...tasks].map(({ dto }) => dto),
  });
  return withUnions(document, commands, tasks);
}

/** The built interface: files that never change are kept for a year, everything else that is not the API opens the page. */
function serveWeb(app: NestExpressApplication, webRoot: string | undefined): void {
  if (!webRoot || !existsSync(webRoot)) return;
  app.use(
    express.static(webRoot, {
      index: false,
      setHeaders: (response, path) =>
        response.setHeader('cache-control', path.includes('/assets/') ? 'public, max-age=31536000, immutable' : 'no-cache'),
    }),
  );
  app.use((request: Request, response: Response, next: NextFunction) => {
    if (request.method !== 'GET' || /^\/(api|health)\//.test(request.path) || /\.\w{2,5}$/.test(request.path)) return next();
    response.setHeader('cache-control', 'no-cache');
    response.sendFile('index.html', { root: webRoot });
  });
}
