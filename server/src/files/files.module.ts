import { Module } from '@nestjs/common';
import { CasesModule } from '../cases/cases.module.js';
import { FilesController } from './files.controller.js';
import { FilesStoreModule } from './files-store.module.js';

@Module({ imports: [CasesModule, FilesStoreModule], controllers: [FilesController] })
export class FilesModule {}
