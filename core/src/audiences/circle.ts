import type { AudienceId } from '../ids/index.js';
import { keyedBy } from '../lists/index.js';
import type { SavedAudience, Terms } from './terms.js';

/** The saved audiences that these terms name themselves. */
export const audiencesIn = ({ include, exclude }: Terms): readonly AudienceId[] => [
  ...new Set([...include, ...exclude].flatMap((term) => (term.kind === 'audience' ? [term.audienceId] : []))),
];

/** The way from an audience through the others back to itself, if it had these terms.
 * @returns its own id, those between, its own id again; null: there is no circle. */
export function circleOf(
  id: AudienceId,
  terms: Terms,
  audiences: readonly SavedAudience[],
): readonly AudienceId[] | null {
  const byId = keyedBy(audiences, (audience) => audience.id);
  const seen = new Set<AudienceId>();
  const back = (at: Terms, path: readonly AudienceId[]): readonly AudienceId[] | null => {
    for (const next of audiencesIn(at)) {
      if (next === id) return [...path, id];
      if (seen.has(next)) continue;
      seen.add(next);
      const audience = byId.get(next);
      const found = audience && back(audience, [...path, next]);
      if (found) return found;
    }
    return null;
  };
  return back(terms, [id]);
}

/** Every audience that names this one, itself or through others; this one is not among them. */
export function usersOf(id: AudienceId, audiences: readonly SavedAudience[]): ReadonlySet<AudienceId> {
  const users = new Set<AudienceId>();
  const waiting = [id];
  for (let next = waiting.pop(); next !== undefined; next = waiting.pop())
    for (const audience of audiences)
      if (!users.has(audience.id) && audiencesIn(audience).includes(next)) {
        users.add(audience.id);
        waiting.push(audience.id);
      }
  users.delete(id);
  return users;
}
