import { Module } from '@nestjs/common';
import { APP_GUARD } from '@nestjs/core';
import { PeopleController } from './people.controller.js';
import { PeopleService } from './people.service.js';
import { PracticeSettingsService } from './practice-settings.service.js';
import { SessionGuard } from './session.js';
import { SignInTries } from './sign-in-tries.js';

@Module({
  controllers: [PeopleController],
  providers: [PeopleService, PracticeSettingsService, SignInTries, { provide: APP_GUARD, useClass: SessionGuard }],
  exports: [PeopleService, PracticeSettingsService],
})
export class PeopleModule {}
