import { fold } from '../text/index.js';
import type { Table } from './readTable.js';

/** What a column of a class file stands for. An attribute keeps its heading as its name. */
export type ColumnMeaning = 'email' | 'name' | 'given-name' | 'family-name' | 'reading' | 'number' | 'attribute' | 'left-out';

export interface ColumnGuess {
  readonly meaning: ColumnMeaning;
  /** sure: its heading says so. guess: its values look like it. */
  readonly sureness: 'sure' | 'guess';
}

/** Heading words of class files in several languages, folded; the longest that fits decides. */
const headingWords: Record<Exclude<ColumnMeaning, 'attribute' | 'left-out'>, readonly string[]> = {
  email: [
    'email',
    'e-mail',
    'mail',
    'email address',
    'e-mail-adresse',
    'courriel',
    'adresse electronique',
    'correo',
    'correo electronico',
    'e-post',
    'posta',
    'endereco de email',
  ],
  'given-name': [
    'first name',
    'firstname',
    'given name',
    'given',
    'first',
    'vorname',
    'prenom',
    'nombre',
    'nome proprio',
    'voornaam',
    'fornamn',
    'imie',
    'forename',
    'nome',
  ],
  'family-name': [
    'last name',
    'lastname',
    'family name',
    'family',
    'surname',
    'last',
    'nachname',
    'familienname',
    'nom de famille',
    'apellido',
    'apellidos',
    'sobrenome',
    'apelido',
    'cognome',
    'achternaam',
    'efternamn',
    'nazwisko',
    'nom',
  ],
  name: ['name', 'full name', 'student', 'student name', 'vollstandiger name', 'nom complet', 'nombre completo', 'nome completo', 'namn', 'naam'],
  reading: ['reading', 'latin name', 'name in latin script', 'romanised name', 'romanized name'],
  number: [
    'number',
    'student number',
    'student no',
    'student id',
    'stud_no',
    'studentnumber',
    'id',
    'matrikelnummer',
    'matrikel',
    'numero',
    "numero d'etudiant",
    'matricula',
    'numero de aluno',
    'studentnummer',
    'nr',
  ],
};

const leftOutWords = ['note', 'notes', 'comment', 'comments', 'remarks', 'bemerkung', 'remarque'];

const meaningByHeading = new Map<string, ColumnMeaning>([
  ...Object.entries(headingWords).flatMap(([meaning, words]) => words.map((word) => [word, meaning as ColumnMeaning] as const)),
  ...leftOutWords.map((word) => [word, 'left-out'] as const),
]);

/** What a heading says by itself, or null. */
export function meaningOfHeading(heading: string): ColumnMeaning | null {
  const word = fold(heading)
    .replace(/[\s_]+/g, ' ')
    .replace(/[.:#]/g, '')
    .trim();
  return meaningByHeading.get(word) ?? meaningByHeading.get(word.replaceAll(' ', '_')) ?? null;
}

/** A first reading of the columns, for a person to correct. Each meaning but `attribute` is given once. */
export function guessColumns(table: Table): ColumnGuess[] {
  const taken = new Set<ColumnMeaning>();
  const take = (meaning: ColumnMeaning, sureness: ColumnGuess['sureness']): ColumnGuess => {
    if (meaning !== 'attribute' && meaning !== 'left-out') taken.add(meaning);
    return { meaning, sureness };
  };
  const byHeading = table.headings.map((heading) => {
    const meaning = table.hasHeader ? meaningOfHeading(heading) : null;
    return meaning !== null && !taken.has(meaning) ? take(meaning, 'sure') : null;
  });
  return byHeading.map((sure, at) => {
    if (sure) return sure;
    const values = table.rows
      .slice(0, 200)
      .map((row) => (row.cells[at] ?? '').trim())
      .filter((value) => value !== '');
    const meaning = meaningOfValues(values, table.hasHeader);
    return take(meaning !== 'attribute' && taken.has(meaning) ? 'attribute' : meaning, 'guess');
  });
}

function meaningOfValues(values: readonly string[], hasHeader: boolean): ColumnMeaning {
  if (values.length === 0) return 'left-out';
  const share = (test: (value: string) => boolean) => values.filter(test).length / values.length;
  if (share((value) => /@.+\./.test(value)) > 0.6) return 'email';
  if (hasHeader) return 'attribute';
  const distinct = new Set(values).size / values.length;
  if (distinct > 0.9 && share((value) => /\d{3,}/.test(value)) > 0.8) return 'number';
  if (distinct > 0.7 && share((value) => /^[\p{L}\p{M}'’.,\- ]+$/u.test(value)) > 0.8) return 'name';
  return 'attribute';
}
