import { Module } from '@nestjs/common';
import { ContoursService } from '../contours/contours.service.js';
import { FilesStoreModule } from '../files/files-store.module.js';
import { CasesController } from './cases.controller.js';
import { CasesService } from './cases.service.js';
import { DuplicateService } from './duplicate.service.js';
import { SectionsService } from './sections.service.js';

@Module({
  imports: [FilesStoreModule],
  controllers: [CasesController],
  providers: [CasesService, ContoursService, DuplicateService, SectionsService],
  exports: [CasesService, ContoursService, SectionsService],
})
export class CasesModule {}
