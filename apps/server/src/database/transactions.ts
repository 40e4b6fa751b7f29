import { AsyncLocalStorage, AsyncResource } from 'node:async_hooks';
import { Sequelize } from 'sequelize';

/**
 * Sequelize's continuation-local transactions over Node's own AsyncLocalStorage: inside a transaction every query of the
 * same asynchronous call goes over its connection, without being told. Sequelize asks for a namespace with these members.
 */
class LocalNamespace {
  private readonly storage = new AsyncLocalStorage<Map<string, unknown>>();

  run<T>(act: (context: Map<string, unknown>) => T): T {
    const context = new Map(this.storage.getStore());
    return this.storage.run(context, () => act(context));
  }
  get(key: string): unknown {
    return this.storage.getStore()?.get(key);
  }
  set(key: string, value: unknown): void {
    this.storage.getStore()?.set(key, value);
  }
  bind<F extends (...args: unknown[]) => unknown>(act: F): F {
    return AsyncResource.bind(act) as unknown as F;
  }
  /** Runs outside of any transaction, for work that a transaction only sets going. */
  exit<T>(act: () => T): T {
    return this.storage.exit(act);
  }
}

export const localTransactions = new LocalNamespace();
Sequelize.useCLS(localTransactions);
