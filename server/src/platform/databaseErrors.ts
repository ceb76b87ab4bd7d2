import { QueryFailedError } from 'typeorm';
import type { Problem } from './problems.js';
import { problems } from './problems.js';

const foreignKeyViolation = '23503';
const uniqueViolation = '23505';
/** One statement that would write one row twice. */
const cardinalityViolation = '21000';
/** The disk is full. */
const diskFull = '53100';
/** Two that waited for each other; one of them was let go. */
const gaveWay = new Set(['40P01', '40001']);

const codeOf = (error: unknown): string | undefined =>
  error instanceof QueryFailedError ? (error.driverError as { code?: string }).code : undefined;

/** Whether the database refused to delete something that other rows refer to. */
export const isStillReferredTo = (error: unknown): boolean => codeOf(error) === foreignKeyViolation;

/** Whether the transaction was let go because of what another one did: it can be tried again. */
export const gaveWayToAnother = (error: unknown): boolean => gaveWay.has(codeOf(error) ?? '');

/** What no check before it found, and the database does not take: nothing of it was kept. null: it is no fault of what was sent. */
export function refusedByDatabase(error: unknown): Problem | null {
  const code = codeOf(error);
  if (code === undefined) return null;
  if (code === uniqueViolation || code === cardinalityViolation)
    return problems.conflict('The same is there already, or was sent twice. Reload and look.');
  if (code === foreignKeyViolation)
    return problems.conflict('Something that this needs is not there any more. Reload and look.');
  if (gaveWayToAnother(error)) return problems.busy();
  if (code === diskFull) return problems.noRoom();
  // Class 22: numbers out of range, texts that are no text, dates that are none.
  return code.startsWith('22')
    ? problems.invalidInput('A number or a text here cannot be kept as it is.')
    : null;
}
