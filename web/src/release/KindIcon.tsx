import { kindOf } from '../kinds/index.js';
import { Spoken } from '../look/index.js';

/** What kind of activity it is, seen and heard. */
export function KindIcon({ kind, size = 19 }: { readonly kind: string; readonly size?: number }) {
  const known = kindOf(kind);
  return known ? (
    <span title={known.word} style={{ display: 'grid' }}>
      <known.icon size={size} aria-hidden="true" />
      <Spoken>{known.word}: </Spoken>
    </span>
  ) : (
    <span />
  );
}
