import { type DynamicModule, Module } from '@nestjs/common';
import { APP_FILTER, APP_INTERCEPTOR } from '@nestjs/core';
import type { Sequelize } from 'sequelize';
import { BookingsModule } from './bookings/bookings.module.js';
import { CasesModule } from './cases/cases.module.js';
import { BodyReader } from './common/body.js';
import type { Config } from './common/config.js';
import { ProblemFilter } from './common/problem.filter.js';
import { ContoursModule } from './contours/contours.module.js';
import { DatabaseModule } from './database/database.module.js';
import { DevicesModule } from './devices/devices.module.js';
import { DocumentsModule } from './documents/documents.module.js';
import { FilesModule } from './files/files.module.js';
import { HealthController } from './health/health.controller.js';
import { InboxModule } from './inbox/inbox.module.js';
import { PeopleModule } from './people/people.module.js';
import { PoolModule } from './pool/pool.module.js';

@Module({})
export class AppModule {
  static with(db: Sequelize, config: Config): DynamicModule {
    return {
      module: AppModule,
      // Documents before cases: `cases/import` must not be taken for a case called import.
      imports: [
        DatabaseModule.with(db, config),
        PoolModule,
        PeopleModule,
        BookingsModule,
        DocumentsModule,
        CasesModule,
        ContoursModule,
        FilesModule,
        InboxModule,
        DevicesModule,
      ],
      controllers: [HealthController],
      providers: [
        { provide: APP_FILTER, useClass: ProblemFilter },
        { provide: APP_INTERCEPTOR, useClass: BodyReader },
      ],
    };
  }
}
