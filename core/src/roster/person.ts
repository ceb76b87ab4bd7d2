/** A person as a class file or a paste tells of them. */
export interface RosterPerson {
  readonly email: string;
  readonly name: string;
  readonly familyName: string | null;
  /** The name in Latin letters, for those who cannot read its script. */
  readonly reading: string | null;
  readonly number: string | null;
  readonly attributes: Readonly<Record<string, string>>;
}
