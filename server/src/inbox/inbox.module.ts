import { Module } from '@nestjs/common';
import { FilesStoreModule } from '../files/files-store.module.js';
import { InboxController } from './inbox.controller.js';
import { InboxService } from './inbox.service.js';

@Module({
  imports: [FilesStoreModule],
  controllers: [InboxController],
  providers: [InboxService],
  exports: [InboxService],
})
export class InboxModule {}
