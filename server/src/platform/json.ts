/** A value on its way into a jsonb column. TypeORM's insert types cannot follow recursive values; this is the one cast. */
export const json = (value: unknown): object => value as object;
