import { Module } from '@nestjs/common';
import { CasesModule } from '../cases/cases.module.js';
import { PeopleModule } from '../people/people.module.js';
import { BookingsController } from './bookings.controller.js';

@Module({
  imports: [CasesModule, PeopleModule],
  controllers: [BookingsController],
})
export class BookingsModule {}
