import type { Server } from 'node:http';
import { join } from 'node:path';
import 'reflect-metadata';
import { mkdir } from 'node:fs/promises';
import { Logger } from '@nestjs/common';
import { NestFactory } from '@nestjs/core';
import type { NestExpressApplication } from '@nestjs/platform-express';
import compression from 'compression';
import connectSession from 'connect-session-sequelize';
import type { Express, Request, Response } from 'express';
import session from 'express-session';
import { AppModule } from './app.module.js';
import { readConfig } from './common/config.js';
import { connect } from './database/connect.js';
import { openDatabase } from './database/database.js';
import { migrate } from './database/migrations.js';
import { Demo } from './devices/demo.js';
import { headsIn } from './files/store.js';
import { openApi } from './openapi.js';
import { SESSION_MS } from './people/session.js';
import { keepNothing, refuseOtherHosts, refuseOtherSites, useSecurityHeaders, useWeb } from './web.js';

/**
 * A session lasts from sign-in, however much is done in it: nothing is written at each request. Unknown to the
 * package's types.
 */
const NO_TOUCH = { disableTouch: true } as object;

/** An idle connection is kept so long. */
const KEEP_ALIVE_MS = 65_000;

async function start(): Promise<void> {
  // What the server writes is its own: other people of the machine may pass through its folder to the database, not
  // look.
  process.umask(0o077);
  const config = readConfig();
  await mkdir(config.incomingDir, { recursive: true, mode: 0o700 });
  const patient = connect(config.database, { patient: true });
  const applied = await migrate(patient, headsIn(join(config.dataDir, 'files')));
  await patient.close();
  const db = openDatabase(config.database);
  const app = await NestFactory.create<NestExpressApplication>(AppModule.with(db, config), {
    logger: ['warn', 'error', 'fatal'],
    bodyParser: false,
  });
  const log = new Logger('start');
  for (const name of applied) log.warn(`migrated: ${name}`);

  const express = app.getHttpAdapter().getInstance() as Express;
  express.disable('x-powered-by');
  // Nobody keeps an answer, so nobody asks whether it has changed; hashing megabytes for that would stop all others.
  express.disable('etag');
  // Whoever speaks to us is who they are, unless a proxy was named whose word on it counts.
  express.set('trust proxy', config.proxy ?? false);
  useSecurityHeaders(express);
  keepNothing(express);
  refuseOtherHosts(express, config.hosts);
  refuseOtherSites(express);
  express.use(compression());
  const Store = connectSession(session.Store);
  const store = new Store({
    db,
    tableName: 'sessions',
    checkExpirationInterval: 15 * 60 * 1000,
    expiration: SESSION_MS,
    ...NO_TOUCH,
  });
  const sessions = session({
    name: 'radiant.sid',
    secret: config.sessionSecret,
    store,
    resave: false,
    saveUninitialized: false,
    cookie: { httpOnly: true, sameSite: 'strict', secure: 'auto', maxAge: SESSION_MS },
  });
  // Health must answer while the database is away, so it goes without a session.
  express.use('/api', (request, response, next) =>
    request.path === '/health' ? next() : sessions(request, response, next),
  );
  app.setGlobalPrefix('api');
  const document = openApi(app);
  express.get('/api/openapi.json', (_: Request, response: Response) => void response.json(document));
  if (config.webDir) useWeb(express, config.webDir);
  app.enableShutdownHooks();
  // A proxy before us keeps connections for a minute; closed by us first, one is used at the very moment of its end.
  (app.getHttpServer() as Server).keepAliveTimeout = KEEP_ALIVE_MS;
  await app.init();
  if (config.demo !== 'no') await app.get(Demo).putIn(config.demo);
  await app.listen(config.port, '127.0.0.1');
  process.send?.('ready');
}

start().catch((error) => {
  console.error(error);
  process.exit(1);
});
