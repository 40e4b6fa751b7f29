import { Inject, Injectable } from '@nestjs/common';
import { fitTogether, PlanFileRefusedError, type PlanChannel, type PlanLine, readPlanCsv, type RefusedLine } from '@sift-reel/core';
import type { PlanFileForm } from '@sift-reel/forms';
import { Client } from '../clients/clients.models.js';
import { type Actor, requireClient } from '../identity/actor.js';
import { InvalidFormException } from '../problems/refusals.js';
import type { ShortView } from '../shorts/shorts.views.js';
import { PlanLoader } from './plan-loader.service.js';
import type { PlanFileView } from './planning.views.js';

/** A line whose names are found. */
interface Matched extends PlanLine {
  readonly shortId: string;
  readonly channelId: string;
}

/** Names are the same whatever their case and however they are spaced. */
const plain = (name: string): string => name.normalize('NFC').trim().replace(/\s+/gu, ' ').toLowerCase();

/** Reads a plan that was made elsewhere, and says what of it can be placed; nothing is written. */
@Injectable()
export class PlanFileService {
  constructor(@Inject(PlanLoader) private readonly loader: PlanLoader) {}

  async read(actor: Actor, form: PlanFileForm): Promise<PlanFileView> {
    if (form.clientId !== null) requireClient(actor, form.clientId);
    const { lines, refused } = linesOf(form.csv);
    const { plan, shorts } = await this.loader.all(actor);
    const clients = await Client.findAll({ where: { id: [...new Set(plan.channels.map((channel) => channel.clientId))] } });
    const named = clients.filter((client) => form.clientId === null || client.id === form.clientId);
    const meant = byTitle(shorts);
    const matched: Matched[] = [];
    const not: RefusedLine[] = [...refused];
    let standing = 0;
    for (const line of lines) {
      const found = match(line, named, plan.channels, meant);
      if ('field' in found) not.push(found);
      else if (
        plan.posts.some(
          (post) => post.channelId === found.channelId && post.shortId === found.shortId && post.date === line.date && post.minute === line.minute,
        )
      )
        standing += 1;
      else matched.push(found);
    }
    const refusals = fitTogether(plan, matched);
    refusals.forEach((refusal, n) => {
      if (refusal !== undefined) not.push({ line: matched[n]!.line, field: 'date', detail: refusal.detail });
    });
    return {
      placements: matched
        .filter((_, n) => refusals[n] === undefined)
        .map(({ line, shortId, channelId, date, minute }) => ({ line, shortId, channelId, date, minute, why: `Read from a file, line ${line}.` })),
      refused: not.sort((a, b) => a.line - b.line),
      standing,
    };
  }
}

function linesOf(csv: string): ReturnType<typeof readPlanCsv> {
  try {
    return readPlanCsv(csv);
  } catch (error) {
    if (error instanceof PlanFileRefusedError) throw new InvalidFormException([{ field: 'csv', detail: error.message }]);
    throw error;
  }
}

/** Whom a line means: its client, that one's channel, and a short by any of the titles that it has. */
function match(
  line: PlanLine,
  clients: readonly Client[],
  channels: readonly PlanChannel[],
  titled: ReadonlyMap<string, readonly Titled[]>,
): Matched | RefusedLine {
  const refuse = (field: string, detail: string): RefusedLine => ({ line: line.line, field, detail });
  const own = clients.filter((client) => line.client === '' || plain(client.name) === plain(line.client));
  if (own.length === 0) return refuse('client', `there is no client “${line.client}” here`);
  const named = channels.filter((channel) => own.some((client) => client.id === channel.clientId) && plain(channel.name) === plain(line.channel));
  if (named.length === 0) return refuse('channel', `there is no channel “${line.channel}”${line.client === '' ? '' : ` of ${line.client}`}`);
  if (named.length > 1) return refuse('channel', `there are ${named.length} channels “${line.channel}”; the column client tells them apart`);
  const channel = named[0]!;
  const meant = [
    ...new Set(
      (titled.get(`${channel.clientId} ${plain(line.title)}`) ?? [])
        .filter((one) => (one.channelId === null || one.channelId === channel.id) && (line.recording === '' || one.recording === plain(line.recording)))
        .map((one) => one.shortId),
    ),
  ];
  if (meant.length === 0)
    return refuse('title', `no short of this client has the title “${line.title}”${line.recording === '' ? '' : ` from “${line.recording}”`}`);
  if (meant.length > 1) return refuse('title', `${meant.length} shorts have the title “${line.title}”; the column recording tells them apart`);
  return { ...line, shortId: meant[0]!, channelId: channel.id };
}

/** A short by one of its titles: on all channels, or on one. */
interface Titled {
  readonly shortId: string;
  readonly channelId: string | null;
  readonly recording: string;
}

/** Shorts by their client and each title that they have. */
function byTitle(shorts: readonly ShortView[]): Map<string, Titled[]> {
  const all = new Map<string, Titled[]>();
  for (const { id, clientId, recordingTitle, copy, channels } of shorts) {
    const recording = plain(recordingTitle);
    const put = (title: string, channelId: string | null): void => {
      const key = `${clientId} ${plain(title)}`;
      all.set(key, [...(all.get(key) ?? []), { shortId: id, channelId, recording }]);
    };
    put(copy.title, null);
    for (const { channelId, variant, translated } of channels) for (const own of [variant, translated]) if (own !== null) put(own.title, channelId);
  }
  return all;
}
