import { Module } from '@nestjs/common';
import { APP_GUARD } from '@nestjs/core';
import { HouseService } from './house.service.js';
import { PeopleController } from './people.controller.js';
import { PeopleService } from './people.service.js';
import { SessionGuard } from './session.js';
import { SignInTries } from './sign-in-tries.js';

@Module({
  controllers: [PeopleController],
  providers: [PeopleService, HouseService, SignInTries, { provide: APP_GUARD, useClass: SessionGuard }],
  exports: [PeopleService],
})
export class PeopleModule {}
