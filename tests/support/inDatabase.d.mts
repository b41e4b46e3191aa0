import type { Page } from '@playwright/test'

interface Done {
  <R>(request: IDBRequest<R>): Promise<R>
  (transaction: IDBTransaction): Promise<void>
}

/**
 * Works on the browser's own database inside a page, past the application, and closes it again. `work` runs in the page: it sees nothing of
 * what stands around it where it is written. `done` resolves with a request's result, or at a transaction's end; `argument` is as JSON has it.
 */
export function inDatabase<T>(page: Page, work: (db: IDBDatabase, done: Done) => Promise<T>): Promise<T>
export function inDatabase<T, A>(
  page: Page,
  work: (db: IDBDatabase, done: Done, argument: A) => Promise<T>,
  argument: A,
): Promise<T>
