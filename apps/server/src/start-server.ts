import type { Server } from 'node:http';
import 'reflect-metadata';
import { existsSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { NestFactory } from '@nestjs/core';
import type { NestExpressApplication } from '@nestjs/platform-express';
import type { Response } from 'express';
import helmet from 'helmet';
import { AppModule } from './app.module.js';
import { type OpenDatabase, openDatabase } from './database/database.js';
import { systemClock } from './http/clock.js';
import { ErrorFilter } from './http/error-filter.js';
import { refuseOtherOrigins } from './http/same-origin.js';
import type { Clock } from './http/tokens.js';

export interface ServerOptions {
  /** Data folder; made when missing. One process at a time. */
  data: string;
  /** 0 takes a free port. */
  port: number;
  host: string;
  /** Folder of the built web application; without it only the interface is served. */
  web?: string;
  clock?: Clock;
  /** A dumped empty database to start a new folder from: faster than making one. */
  template?: Blob;
}

export interface RunningServer {
  address: string;
  app: NestExpressApplication;
  database: OpenDatabase;
  stop: () => Promise<void>;
}

/** Starts Coomb on a data folder. Throws FolderInUseError when another process has it. */
export async function startServer(options: ServerOptions): Promise<RunningServer> {
  const database = await openDatabase(options.data, options.template);
  try {
    const app = await NestFactory.create<NestExpressApplication>(
      AppModule.with({ db: database.db, clock: options.clock ?? systemClock, trayFolder: join(options.data, 'tray') }),
      { logger: ['error', 'warn'], bodyParser: false },
    );
    configure(app, options.web);
    // A browser that asks again after a long write must find its connection still open.
    (app.getHttpServer() as Server).keepAliveTimeout = 75_000;
    await app.listen(options.port, options.host);
    const { port } = app.getHttpServer().address() as AddressInfo;
    const stop = async () => {
      app.getHttpServer().closeAllConnections();
      await app.close();
      await database.close();
    };
    return { address: `http://${options.host.includes(':') ? `[${options.host}]` : options.host}:${port}`, app, database, stop };
  } catch (error) {
    await database.close();
    throw error;
  }
}

function configure(app: NestExpressApplication, web: string | undefined): void {
  app.setGlobalPrefix('api');
  app.useBodyParser('json', { limit: '20mb' });
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'none'"],
          scriptSrc: ["'self'"],
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          fontSrc: ["'self'"],
          connectSrc: ["'self'"],
          workerSrc: ["'self'", 'blob:'],
          frameSrc: ["'self'"],
          frameAncestors: ["'self'"],
          baseUri: ["'none'"],
          formAction: ["'self'"],
        },
      },
      strictTransportSecurity: false,
    }),
  );
  app.use(refuseOtherOrigins);
  app.useGlobalFilters(new ErrorFilter());
  if (!web || !existsSync(join(web, 'index.html'))) return;
  app.useStaticAssets(join(web, 'assets'), { prefix: '/assets/', immutable: true, maxAge: '1y', fallthrough: false });
  app.useStaticAssets(web, { index: false });
  const index = join(web, 'index.html');
  app
    .getHttpAdapter()
    .getInstance()
    .get(/^\/(?!api\/|assets\/).*/, (_request: unknown, response: Response) => response.set('Cache-Control', 'no-cache').sendFile(index));
}
