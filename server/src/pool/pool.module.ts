import { Global, Module } from '@nestjs/common';
import { Pool } from './pool.js';

/** One pool for the whole server. */
@Global()
@Module({ providers: [Pool], exports: [Pool] })
export class PoolModule {}
