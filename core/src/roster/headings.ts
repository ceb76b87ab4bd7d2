import type { Role } from '../course/index.js';
import { fold } from '../text/index.js';
import { isGroupHeading } from './places.js';

/** What a column of a class file stands for. An attribute keeps its heading as its name, a column of groups as that of their set. */
export type ColumnMeaning =
  | 'email'
  | 'name'
  | 'given-name'
  | 'family-name'
  | 'reading'
  | 'number'
  | 'role'
  | 'section'
  | 'group'
  | 'attribute'
  | 'left-out';

/** Heading words of class files in several languages, folded; the longest that fits decides. */
const headingWords: Record<
  Exclude<ColumnMeaning, 'section' | 'group' | 'attribute' | 'left-out'>,
  readonly string[]
> = {
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
  name: [
    'name',
    'full name',
    'student',
    'student name',
    'vollstandiger name',
    'nom complet',
    'nombre completo',
    'nome completo',
    'namn',
    'naam',
  ],
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
  role: ['role', 'rolle', 'rol', 'papel', 'funcao', 'ruolo', 'roll', 'course role', 'enrollment role'],
};

const roleWords: Record<Role, readonly string[]> = {
  student: [
    'student',
    'students',
    'learner',
    'etudiant',
    'etudiante',
    'estudante',
    'aluno',
    'aluna',
    'estudiante',
    'alumno',
    'alumna',
    'studierende',
    'studentin',
  ],
  assistant: [
    'proctor',
    'assistant',
    'teaching assistant',
    'ta',
    'tutor',
    'tutorin',
    'aide',
    'assistente',
    'assistent',
    'assistentin',
    'asistente',
    'chargee de td',
  ],
  instructor: [
    'instructor',
    'teacher',
    'lecturer',
    'professor',
    'dozent',
    'dozentin',
    'lehrperson',
    'docente',
    'profesor',
    'enseignant',
    'enseignante',
  ],
  observer: ['administrator', 'observer', 'guest', 'auditor', 'beobachter', 'observateur', 'observador'],
};
const roleByWord = new Map(
  Object.entries(roleWords).flatMap(([role, words]) => words.map((word) => [word, role as Role] as const)),
);

/** The role that a cell names, in several languages; null: none, or a word that is no role. */
export const roleOfWord = (word: string): Role | null => roleByWord.get(fold(word)) ?? null;

const leftOutWords = ['note', 'notes', 'comment', 'comments', 'remarks', 'bemerkung', 'remarque'];

const meaningByHeading = new Map<string, ColumnMeaning>([
  ...Object.entries(headingWords).flatMap(([meaning, words]) =>
    words.map((word) => [word, meaning as ColumnMeaning] as const),
  ),
  ...leftOutWords.map((word) => [word, 'left-out'] as const),
]);

const attributePrefix = 'Attribute: ';

/** The heading under which our own files tell an attribute: its name, unless that would be read as something else,
 * or as somebody's address. */
export const attributeHeading = (name: string): string =>
  meaningOfHeading(name) === null && !name.includes('@') ? name : `${attributePrefix}${name}`;

/** The attribute that a column of this heading tells. */
export const attributeOfHeading = (heading: string): string =>
  heading.startsWith(attributePrefix) ? heading.slice(attributePrefix.length) : heading;

/** What a heading says by itself, or null. */
export function meaningOfHeading(heading: string): ColumnMeaning | null {
  if (heading.startsWith(attributePrefix)) return 'attribute';
  if (isGroupHeading(heading)) return 'group';
  const word = fold(heading)
    .replace(/[\s_]+/g, ' ')
    .replace(/[.:#]/g, '')
    .trim();
  return meaningByHeading.get(word) ?? meaningByHeading.get(word.replaceAll(' ', '_')) ?? null;
}
