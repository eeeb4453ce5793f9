import { type DynamicModule, Global, Module } from '@nestjs/common';
import type { Sequelize } from 'sequelize';
import { CONFIG, type Config } from '../common/config.js';

export const DATABASE = Symbol('database');

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
