import { Module } from '@nestjs/common';
import { FilesService } from './files.service.js';

/** The store alone, for the modules that keep or read files without the routes. */
@Module({ providers: [FilesService], exports: [FilesService] })
export class FilesStoreModule {}
