import { Module } from '@nestjs/common';
import { CasesModule } from '../cases/cases.module.js';
import { DevicesModule } from '../devices/devices.module.js';
import { FilesStoreModule } from '../files/files-store.module.js';
import { PeopleModule } from '../people/people.module.js';
import { CaseDocumentService } from './case-document.js';
import { DocumentsController } from './documents.controller.js';
import { JobsService } from './jobs.service.js';

@Module({
  imports: [CasesModule, DevicesModule, FilesStoreModule, PeopleModule],
  controllers: [DocumentsController],
  providers: [CaseDocumentService, JobsService],
})
export class DocumentsModule {}
