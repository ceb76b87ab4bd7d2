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
    'e-mail address',
    'mail address',
    'school email',
    'university email',
    'student email',
    'e mail',
    'mailadresse',
    'mail-adresse',
    'email-adresse',
    'adresse e-mail',
    'adresse mel',
    'mel',
    'correo institucional',
    'direccion de correo',
    'endereco eletronico',
    'email institucional',
    'indirizzo email',
    'posta elettronica',
    'e-mailadres',
    'emailadres',
    'e-postadress',
    'epost',
    'adres e-mail',
    'adres email',
    'sahkoposti',
    'e-posta',
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
    'given names',
    'first names',
    'forenames',
    'preferred name',
    'rufname',
    'prenoms',
    'nombres',
    'nomes proprios',
    'nome proprio',
    'primeiro nome',
    'roepnaam',
    'imiona',
    'etunimi',
    'etunimet',
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
    'family names',
    'last names',
    'surnames',
    'name (family)',
    'zuname',
    'nom de familia',
    'primer apellido',
    'nome de familia',
    'ultimo nome',
    'cognomi',
    'familienaam',
    'slaktnamn',
    'sukunimi',
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
    'names',
    'participant',
    'learner',
    'person',
    'student(in)',
    'name, vorname',
    'nachname, vorname',
    'nom et prenom',
    'nom prenom',
    'nom, prenom',
    'apellidos y nombres',
    'apellidos, nombre',
    'nombre y apellidos',
    'nome do aluno',
    'nome e cognome',
    'cognome e nome',
    'volledige naam',
    'fullstandigt namn',
    'imie i nazwisko',
    'nazwisko i imie',
    'nimi',
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
    'no',
    'stud no',
    'stud number',
    'student nr',
    'student number (id)',
    'registration number',
    'registration no',
    'reg no',
    'enrolment number',
    'enrolment no',
    'candidate number',
    'university id',
    'matric',
    'matric no',
    'matriculation number',
    'matrikel-nr',
    'matrikelnr',
    'matr-nr',
    'matrnr',
    'matnr',
    'matrikelnummer (id)',
    'n° etudiant',
    'no etudiant',
    'numero etudiant',
    'code etudiant',
    'n etudiant',
    'numero de estudiante',
    'numero de alumno',
    'no de alumno',
    'expediente',
    'numero mecanografico',
    'n mecanografico',
    'no mecanografico',
    'n de aluno',
    'no de aluno',
    'numero estudante',
    'matricola',
    'numero di matricola',
    'numero matricola',
    'n matricola',
    'studentennummer',
    'student-nr',
    'studienummer',
    'matrikelnummer',
    'nr albumu',
    'numer albumu',
    'numer indeksu',
    'nr indeksu',
    'opiskelijanumero',
  ],
  role: [
    'role',
    'rolle',
    'rol',
    'papel',
    'funcao',
    'ruolo',
    'roll',
    'course role',
    'enrollment role',
    'kursrolle',
    'role dans le cours',
    'rola',
  ],
};

/** Headings of columns that say who is in which group, folded, in several languages. */
const groupWords = [
  'group', 'groups', 'section', 'team', 'tutorial', 'tutorial group', 'class group', 'lab group', 'lab section',
  'seminar group', 'practical group', 'study group', 'project group', 'bench', 'gruppe', 'gruppen', 'ubungsgruppe',
  'ubung', 'tutorium', 'seminargruppe', 'praktikumsgruppe', 'groupe', 'groupe de td', 'groupe de tp', 'equipe',
  'section de td', 'grupo', 'equipo', 'seccion', 'turma', 'turno', 'equipa', 'grupo de trabalho', 'gruppo', 'squadra',
  'sezione', 'groep', 'werkgroep', 'werkcollegegroep', 'grupp', 'seminariegrupp', 'lag', 'grupa', 'zespol',
  'grupa cwiczeniowa', 'ryhma',
]; // prettier-ignore

const leftOutWords = [
  '#',
  'row',
  'lfd nr',
  'lfd. nr.',
  'pos',
  'seq',
  'signature',
  'unterschrift',
  'note',
  'notes',
  'comment',
  'comments',
  'remarks',
  'bemerkung',
  'remarque',
];

const meaningByHeading = new Map<string, ColumnMeaning>([
  ...Object.entries(headingWords).flatMap(([meaning, words]) =>
    words.map((word) => [word, meaning as ColumnMeaning] as const),
  ),
  ...groupWords.map((word) => [word, 'group'] as const),
  ...leftOutWords.map((word) => [word, 'left-out'] as const),
]);

const attributePrefix = 'Attribute: ';

/** The heading under which our own files tell an attribute: its name, unless that would be read as something else,
 * or as someone's address. */
export const attributeHeading = (name: string): string =>
  meaningOfHeading(name) === null && !name.includes('@') ? name : `${attributePrefix}${name}`;

/** The attribute that a column of this heading tells. */
export const attributeOfHeading = (heading: string): string =>
  heading.startsWith(attributePrefix) ? heading.slice(attributePrefix.length) : heading;

/** What a heading says by itself, or null. */
export function meaningOfHeading(heading: string): ColumnMeaning | null {
  if (heading.startsWith(attributePrefix)) return 'attribute';
  if (isGroupHeading(heading)) return 'group';
  const folded = fold(heading)
    .replace(/[\s_]+/g, ' ')
    .trim();
  const word = folded.replace(/[.:#*°º]/g, '').trim();
  return (
    meaningByHeading.get(folded) ??
    meaningByHeading.get(word) ??
    meaningByHeading.get(word.replaceAll(' ', '_')) ??
    null
  );
}
