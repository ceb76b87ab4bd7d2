import type { With } from '@jigsaw/contract/messages';
import { PersonName } from '../look/index.js';

/** Who a thread is with, as its reader sees it: a student writes to staff. */
export function WithName({ of }: { readonly of: With }) {
  if (of.kind === 'group') return of.group.name;
  return of.person.isYou ? 'Staff' : <PersonName name={of.person.name} reading={of.person.reading} />;
}
