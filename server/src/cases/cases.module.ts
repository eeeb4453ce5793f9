import { Module } from '@nestjs/common';
import { ContoursModule } from '../contours/contours.module.js';
import { FilesStoreModule } from '../files/files-store.module.js';
import { PeopleModule } from '../people/people.module.js';
import { BinService } from './bin.service.js';
import { CasesController } from './cases.controller.js';
import { CasesService } from './cases.service.js';
import { DuplicateService } from './duplicate.service.js';
import { SectionsService } from './sections.service.js';

@Module({
  imports: [ContoursModule, FilesStoreModule, PeopleModule],
  controllers: [CasesController],
  providers: [BinService, CasesService, DuplicateService, SectionsService],
  exports: [CasesService, SectionsService],
})
export class CasesModule {}
