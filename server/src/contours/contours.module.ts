import { Module } from '@nestjs/common';
import { FilesStoreModule } from '../files/files-store.module.js';
import { ContoursController } from './contours.controller.js';
import { ContoursService } from './contours.service.js';

@Module({
  imports: [FilesStoreModule],
  controllers: [ContoursController],
  providers: [ContoursService],
  exports: [ContoursService],
})
export class ContoursModule {}
