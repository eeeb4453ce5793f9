import { type DynamicModule, Global, Module } from '@nestjs/common';
import type { Sequelize } from 'sequelize';
import type { Config } from '../config.js';

export const DATABASE = Symbol('database');
export const CONFIG = Symbol('config');

/** Gives the open connection pool and the configuration to every module. */
@Global()
@Module({})
export class DatabaseModule {
  static with(db: Sequelize, config: Config): DynamicModule {
    return {
      module: DatabaseModule,
      providers: [
        { provide: DATABASE, useValue: db },
        { provide: CONFIG, useValue: config },
      ],
      exports: [DATABASE, CONFIG],
    };
  }
}
