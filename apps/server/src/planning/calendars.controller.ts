import { Body, Controller, Delete, Get, Headers, HttpCode, Inject, Param, ParseUUIDPipe, Post, Res } from '@nestjs/common';
import { ApiCreatedResponse, ApiNoContentResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { CalendarForm } from '@sift-reel/forms';
import type { Response } from 'express';
import { type Actor, CurrentActor } from '../identity/actor.js';
import { Public } from '../identity/session.guard.js';
import { CalendarsService } from './calendars.service.js';
import { CalendarMadeView, CalendarView } from './planning.views.js';

@ApiTags('planning')
@Controller()
export class CalendarsController {
  constructor(@Inject(CalendarsService) private readonly calendars: CalendarsService) {}

  @Get('clients/:clientId/calendars')
  @ApiOkResponse({ type: [CalendarView] })
  listCalendars(@CurrentActor() actor: Actor, @Param('clientId', ParseUUIDPipe) clientId: string): Promise<CalendarView[]> {
    return this.calendars.list(actor, clientId);
  }

  @Post('clients/:clientId/calendars')
  @ApiCreatedResponse({ type: CalendarMadeView })
  createCalendar(@CurrentActor() actor: Actor, @Param('clientId', ParseUUIDPipe) clientId: string, @Body() form: CalendarForm): Promise<CalendarMadeView> {
    return this.calendars.create(actor, clientId, form);
  }

  @Delete('calendars/:calendarId')
  @HttpCode(204)
  @ApiNoContentResponse()
  withdrawCalendar(@CurrentActor() actor: Actor, @Param('calendarId', ParseUUIDPipe) calendarId: string): Promise<void> {
    return this.calendars.withdraw(actor, calendarId);
  }

  /** Whoever has the address may read it: calendar programs bring no session. */
  @Public()
  @Get('calendar/:token.ics')
  @ApiOkResponse({ description: 'iCalendar (RFC 5545, RFC 7986)' })
  async readCalendar(@Param('token') token: string, @Headers('if-none-match') known: string | undefined, @Res() response: Response): Promise<void> {
    const { text, etag } = await this.calendars.publish(token);
    response
      .setHeader('Content-Type', 'text/calendar; charset=utf-8')
      .setHeader('Cache-Control', 'private, no-cache')
      .setHeader('Referrer-Policy', 'no-referrer')
      .setHeader('X-Robots-Tag', 'noindex')
      .setHeader('ETag', etag);
    // Whoever asks with `no-cache` as well wants the word of whoever has it, which this is (RFC 9110, section 13.1.2).
    if (isKnown(known, etag)) response.status(304).end();
    else response.send(text);
  }
}

/** Weak comparison with what a request names (RFC 9110, section 8.8.3.2). */
function isKnown(known: string | undefined, etag: string): boolean {
  const named = (known ?? '').split(',').map((one) => one.trim().replace(/^W\//, ''));
  return named.includes(etag) || named.includes('*');
}
