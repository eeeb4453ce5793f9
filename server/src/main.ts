import 'reflect-metadata';
import { Logger } from '@nestjs/common';
import { NestFactory } from '@nestjs/core';
import type { NestExpressApplication } from '@nestjs/platform-express';
import connectSession from 'connect-session-sequelize';
import type { Express, Request, Response } from 'express';
import session from 'express-session';
import { AppModule } from './app.module.js';
import { readConfig } from './config.js';
import { openDatabase } from './database/database.js';
import { migrate } from './database/migrations.js';
import { Demo } from './devices/demo.js';
import { openApi } from './openapi.js';
import { refuseOtherSites, useSecurityHeaders, useWeb } from './web.js';

const TWELVE_HOURS_MS = 12 * 60 * 60 * 1000;

async function start(): Promise<void> {
  const config = readConfig();
  const db = openDatabase(config.database);
  const applied = await migrate(db);
  const app = await NestFactory.create<NestExpressApplication>(AppModule.with(db, config), { logger: ['warn', 'error', 'fatal'], bodyParser: false });
  const log = new Logger('start');
  for (const name of applied) log.warn(`migrated: ${name}`);

  const express = app.getHttpAdapter().getInstance() as Express;
  express.disable('x-powered-by');
  express.set('trust proxy', 'loopback');
  useSecurityHeaders(express);
  refuseOtherSites(express);
  app.useBodyParser('json', { limit: '2mb' });
  const Store = connectSession(session.Store);
  const store = new Store({ db, tableName: 'sessions', checkExpirationInterval: 15 * 60 * 1000, expiration: TWELVE_HOURS_MS });
  const sessions = session({
    name: 'radiant.sid',
    secret: config.sessionSecret,
    store,
    resave: false,
    saveUninitialized: false,
    cookie: { httpOnly: true, sameSite: 'strict', secure: 'auto', maxAge: TWELVE_HOURS_MS },
  });
  // Health must answer while the database is away, so it goes without a session.
  express.use('/api', (request, response, next) => (request.path === '/health' ? next() : sessions(request, response, next)));
  app.setGlobalPrefix('api');
  const document = openApi(app);
  express.get('/api/openapi.json', (_: Request, response: Response) => void response.json(document));
  if (config.webDir) useWeb(express, config.webDir);
  app.enableShutdownHooks();
  await app.init();
  if (config.demo !== 'no') await app.get(Demo).putIn(config.demo);
  await app.listen(config.port, '127.0.0.1');
  process.send?.('ready');
}

start().catch((error) => {
  console.error(error);
  process.exit(1);
});
