import type { Server } from 'node:http';
import 'reflect-metadata';
import { existsSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { NestFactory } from '@nestjs/core';
import type { NestExpressApplication } from '@nestjs/platform-express';
import type { Response } from 'express';
import compression from 'compression';
import helmet from 'helmet';
import { AppModule } from './app.module.js';
import { type OpenDatabase, openDatabase } from './database/database.js';
import type { CopySchedule } from './backup/copies.service.js';
import { usualCopiesFolder } from './database/data-folder.js';
import { allowHosts, type Naming } from './http/allowed-hosts.js';
import { rememberCaller } from './http/caller.js';
import { systemClock } from './http/clock.js';
import { ErrorFilter } from './http/error-filter.js';
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
  /** A database folder to begin a new one with a copy of: faster than making one. */
  template?: string;
  /** Further names that people reach it by. */
  names?: readonly string[];
  /** Where and how often copies of the data folder are made; none when unsaid. */
  copies?: CopySchedule;
  /** Called when the database gave up and nothing can be answered any more. */
  onDied?: (message: string) => void;
  /** For tests: bytes until the disk is full, and how much room it says it has. */
  diskBytes?: number;
  askRoom?: (folder: string) => Promise<number>;
}

export interface RunningServer {
  address: string;
  app: NestExpressApplication;
  database: OpenDatabase;
  stop: () => Promise<void>;
}

export class PortTakenError extends Error {
  override readonly name = 'PortTakenError';
}

/** Starts Coomb on a data folder. Throws FolderInUseError, DataFolderError or PortTakenError with a message that says what to do. */
export async function startServer(options: ServerOptions): Promise<RunningServer> {
  const { data, host, names = [], template, onDied, diskBytes, askRoom } = options;
  const copies = options.copies ?? { folder: usualCopiesFolder(data), keep: 0, everyHours: 24 };
  const database = await openDatabase(data, { template, onDied, diskBytes, askRoom, copies: copies.keep > 0 ? copies.folder : undefined });
  try {
    const app = await NestFactory.create<NestExpressApplication>(AppModule.with({ database, clock: options.clock ?? systemClock, copies }), {
      logger: ['error', 'warn'],
      bodyParser: false,
      abortOnError: false,
      // Who connects while the parts of the server end, and says nothing, would hold it up for minutes.
      forceCloseConnections: true,
    });
    configure(app, options.web, { host, names });
    // A browser that asks again after a long write must find its connection still open.
    (app.getHttpServer() as Server).keepAliveTimeout = 75_000;
    await app.listen(options.port, options.host).catch((error) => {
      throw error.code === 'EADDRINUSE'
        ? new PortTakenError(`Port ${options.port} of ${options.host} is taken by another program. Choose another with --port; 0 takes any that is free.`)
        : error;
    });
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

const isPackable = (type: string) => /^(?:application\/(?:json|javascript|xml)|text\/(?!event-stream)|image\/svg)/.test(type);

function configure(app: NestExpressApplication, web: string | undefined, naming: Naming): void {
  app.use(allowHosts(naming));
  app.use(rememberCaller);
  // The stream of changes must not wait until a block is full; files are packed already, or are as large as they say.
  app.use(compression({ level: 3, filter: (_request, response) => isPackable(String(response.getHeader('Content-Type') ?? '')) }));
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
          // Report pages carry their fonts.
          fontSrc: ["'self'", 'data:'],
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
