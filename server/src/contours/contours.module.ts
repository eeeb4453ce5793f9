import { Module } from '@nestjs/common';
import { CasesModule } from '../cases/cases.module.js';
import { ContoursController } from './contours.controller.js';

/** The routes; the service belongs to the cases, which show their contours. */
@Module({ imports: [CasesModule], controllers: [ContoursController] })
export class ContoursModule {}
