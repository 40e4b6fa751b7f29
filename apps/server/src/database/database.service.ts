import { Inject, Injectable } from '@nestjs/common';
import { InjectConnection } from '@nestjs/sequelize';
import pLimit, { type LimitFunction } from 'p-limit';
import type pg from 'pg';
import { QueryTypes, Transaction } from 'sequelize';
import { Sequelize } from 'sequelize-typescript';
import { CONFIG, type Config } from '../config/config.module.js';
import { sqlState } from './sql-state.js';
import { localTransactions } from './transactions.js';

/** Connections that transactions may not take: for reads, the session guard first of all, so that waiting writers starve nobody. */
export const READERS = 6;
/** A deadlock is nobody's fault; PostgreSQL ends one of the two, and that one tries again. */
const MOST_TRIES = 4;
const TRY_AGAIN = new Set(['40P01', '40001']);

/** The one way to write: a transaction that every query inside belongs to, and the locks it takes first. */
@Injectable()
export class Database {
  private readonly writers: LimitFunction;

  constructor(
    @InjectConnection() readonly sequelize: Sequelize,
    @Inject(CONFIG) config: Config,
  ) {
    this.writers = pLimit(config.poolSize - READERS);
  }

  /**
   * Runs `act` in a transaction; inside one it joins that one. `act` may run again when two transactions block each other,
   * so it does nothing but read and write the database. Waiting for a turn holds no connection.
   */
  async transaction<T>(act: () => Promise<T>): Promise<T> {
    if (this.current() !== null) return act();
    return this.writers(async () => {
      for (let tries = 1; ; tries += 1) {
        try {
          return await this.sequelize.transaction(act);
        } catch (error) {
          if (tries === MOST_TRIES || !TRY_AGAIN.has(sqlState(error) ?? '')) throw error;
        }
      }
    });
  }

  /**
   * Reads that belong together, as all of it stood at one moment: a state read after the row it tells of may be newer than the row.
   * Inside a transaction they join that one. Nothing may be written.
   */
  async snapshot<T>(read: () => Promise<T>): Promise<T> {
    if (this.current() !== null) return read();
    return this.sequelize.transaction({ isolationLevel: Transaction.ISOLATION_LEVELS.REPEATABLE_READ, readOnly: true }, read);
  }

  /**
   * Holds locks, by name, until the transaction ends; in one order everywhere, so that two never wait for each other.
   * What the write rests on is read after this.
   */
  async lock(...names: readonly string[]): Promise<void> {
    if (this.current() === null) throw new Error('a lock is taken inside a transaction');
    for (const name of [...new Set(names)].sort())
      await this.sequelize.query('SELECT pg_advisory_xact_lock(hashtextextended($1, 0))', { bind: [name], type: QueryTypes.SELECT });
  }

  /** Rows of a query. */
  async rows<T extends object>(sql: string, bind: readonly unknown[] = []): Promise<T[]> {
    return this.sequelize.query<T>(sql, { bind: [...bind], type: QueryTypes.SELECT });
  }

  /** Runs a statement. @returns the rows of its RETURNING, if it has any */
  async run<T extends object>(sql: string, bind: readonly unknown[] = []): Promise<T[]> {
    const current = this.current();
    // Over the driver itself where Sequelize would guess what kind of statement it is from its first word.
    if (current !== null) return (await (current as unknown as { connection: pg.Client }).connection.query(sql, [...bind])).rows as T[];
    return this.transaction(() => this.run<T>(sql, bind));
  }

  /** Sets work going that must not belong to the transaction at hand. */
  apart<T>(act: () => T): T {
    return localTransactions.exit(act);
  }

  private current(): Transaction | null {
    return (localTransactions.get('transaction') as Transaction | null | undefined) ?? null;
  }
}
