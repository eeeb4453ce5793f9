import { Body, Controller, Delete, Get, HttpCode, Param, Post, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { type Arrived, TrayDecision } from '@radiant/contract';
import type { Response } from 'express';
import { Checked } from '../common/checked.pipe.js';
import { Allow, keepers, Me, type SignedIn } from '../people/session.js';
import { InboxService } from './inbox.service.js';

const KEEPERS = keepers('keeps photographs and scans');

/** What devices have laid into the watched folder, and the tray of what names no case. */
@ApiTags('arrivals')
@Controller('arrivals')
export class InboxController {
  constructor(private readonly inbox: InboxService) {}

  @Get()
  list(@Me() me: SignedIn): Promise<Arrived[]> {
    return this.inbox.arrivals(me);
  }

  /** Gives a waiting file to a case. */
  @Post(':id/place')
  @Allow(KEEPERS)
  @HttpCode(200)
  async place(
    @Param('id') id: string,
    @Body(new Checked(TrayDecision)) decision: TrayDecision,
    @Me() me: SignedIn,
  ): Promise<Arrived> {
    return this.inbox.place(id, decision, me);
  }

  @Get(':id/picture')
  async picture(@Param('id') id: string, @Me() me: SignedIn, @Res() response: Response): Promise<void> {
    response.type('image/jpeg').send(await this.inbox.picture(id, me));
  }

  /** Throws a waiting file away. */
  @Delete(':id')
  @Allow(KEEPERS)
  @HttpCode(204)
  async throwAway(@Param('id') id: string, @Me() me: SignedIn): Promise<void> {
    await this.inbox.throwAway(id, me);
  }
}
