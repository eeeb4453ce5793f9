import { Module } from '@nestjs/common';
import { CasesModule } from '../cases/cases.module.js';
import { FilesStoreModule } from '../files/files-store.module.js';
import { InboxModule } from '../inbox/inbox.module.js';
import { PeopleModule } from '../people/people.module.js';
import { Demo } from './demo.js';
import { Printer } from './printer.js';

/** The only door to the simulated devices. */
@Module({
  imports: [CasesModule, FilesStoreModule, InboxModule, PeopleModule],
  providers: [Demo, Printer],
  exports: [Demo, Printer],
})
export class DevicesModule {}
