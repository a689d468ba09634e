import type { DataSource, EntityManager } from 'typeorm';

/** What the services use of the database: the whole of it, or one transaction that is under way. */
export interface Database {
  readonly manager: EntityManager;
  transaction<Result>(work: (manager: EntityManager) => Promise<Result>): Promise<Result>;
}

/** Runs work of several services in one transaction: all of it is kept, or nothing. */
export function inOneTransaction(database: DataSource, work: (inside: Database) => Promise<void>): Promise<void> {
  return database.transaction((manager) =>
    // A transaction within is a savepoint.
    work({ manager, transaction: (part) => manager.transaction(part) }),
  );
}
