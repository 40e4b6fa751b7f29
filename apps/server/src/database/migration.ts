/** One step of the schema. `up` and `down` hand their SQL to `run`, inside one transaction each. */
export interface Migration {
  readonly name: string;
  up(run: (sql: string) => Promise<void>): Promise<void>;
  down(run: (sql: string) => Promise<void>): Promise<void>;
}
