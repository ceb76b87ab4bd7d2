import { Empty } from '../look/index.js';

/** Where a message was, or is for others. */
export const NotHere = () => (
  <Empty title="Nothing here">This message was removed, or it is not yours to read.</Empty>
);
