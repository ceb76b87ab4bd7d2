/**
 * What is known to be there, for code that can tell from what it did a moment before: a key just put in, the first of a list
 * that is not empty.
 * @throws Error if it is not there after all: a fault of ours, told where it arises and not where it is felt.
 */
export function sure<Value>(value: Value): NonNullable<Value> {
  if (value === null || value === undefined) throw new Error('Something that must be there is not there.');
  return value;
}
