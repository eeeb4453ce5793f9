import { Module } from '@nestjs/common';
import { FilesController } from './files.controller.js';
import { FilesStoreModule } from './files-store.module.js';

@Module({ imports: [FilesStoreModule], controllers: [FilesController] })
export class FilesModule {}
