import { QueryFailedError } from 'typeorm';

const foreignKeyViolation = '23503';

/** Whether the database refused to delete something that other rows refer to. */
export const isStillReferredTo = (error: unknown): boolean =>
  error instanceof QueryFailedError && (error.driverError as { code?: string }).code === foreignKeyViolation;
