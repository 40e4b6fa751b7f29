import type { Model, ModelStatic } from 'sequelize';
import { NotFoundException } from '@nestjs/common';
import { StaleWriteException } from '../problems/refusals.js';

/**
 * The first thing a write does to a row that two people can edit: locks it and says that the writer saw this version of it.
 * The version counts on with the same statement, so that a second writer who saw it too is stale.
 * @param view what the row is now, for whoever is stale
 * @throws StaleWriteException with that view; NotFoundException when the row is gone
 */
export async function claimVersion<M extends Model & { id: string; version: number }>(
  model: ModelStatic<M>,
  id: string,
  seen: number,
  what: string,
  view: (row: M) => Promise<object> | object,
): Promise<M> {
  const row = await model.findByPk(id, { lock: true });
  if (row === null) throw new NotFoundException(`There is no such ${what}.`);
  if (row.version !== seen) throw new StaleWriteException(what, await view(row));
  await row.update({ version: row.version + 1 } as Partial<M>);
  return row;
}
