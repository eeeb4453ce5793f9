import { Module } from '@nestjs/common';
import { ContoursController } from './contours.controller.js';
import { ContoursService } from './contours.service.js';

@Module({ controllers: [ContoursController], providers: [ContoursService], exports: [ContoursService] })
export class ContoursModule {}
