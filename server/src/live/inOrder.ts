/** Acts on one value after the other, in the order in which they came, however long each takes.
 * @returns what takes the next value; it never waits and never fails. */
export function inOrder<Value>(
  act: (value: Value) => Promise<unknown>,
  onError: (error: unknown) => void,
): (value: Value) => void {
  let line: Promise<unknown> = Promise.resolve();
  return (value) => {
    line = line.then(() => act(value)).catch(onError);
  };
}
