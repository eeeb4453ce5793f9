import { Module } from '@nestjs/common';
import { PeopleModule } from '../people/people.module.js';
import { BookingsController } from './bookings.controller.js';

@Module({
  imports: [PeopleModule],
  controllers: [BookingsController],
})
export class BookingsModule {}
