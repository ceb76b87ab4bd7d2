import { halfDays, writeHalfDays } from '@jigsaw/core/course';
import { sure } from '@jigsaw/core/lists';

/** The made-up class. No one here exists. */
export interface MadeStudent {
  readonly name: string;
  readonly family: string;
  /** The name in Latin letters where it is written in another script. */
  readonly reading: string;
  readonly section: 'Tuesday lab' | 'Thursday lab';
  readonly experience: 'none' | 'some' | 'plenty';
  readonly timetable: 'day' | 'evening';
  readonly kitchen: 'yes' | 'no';
  readonly language: string;
}

export const domain = 'quillmere.example';
/** Everyone made up can also sign in with this. */
export const demoPassword = 'brine and bubbles';

export const staff = {
  instructor: { name: 'Dr. Ilse Marrow', family: 'Marrow', email: `ilse.marrow@${domain}` },
  assistants: [
    { name: 'Tomas Vey', email: `tomas.vey@${domain}` },
    { name: 'Priya Anand-Holt', email: `priya.anand-holt@${domain}` },
  ],
  observer: { name: 'Prof. Oke Lindgård', email: `oke.lindgard@${domain}` },
} as const;

const line = (text: string): MadeStudent => {
  const [name, family, reading, section, experience, timetable, kitchen, language] = text.split('|');
  return {
    name: sure(name),
    family: sure(family),
    reading: sure(reading),
    section: section === 'T' ? 'Tuesday lab' : 'Thursday lab',
    experience: experience as MadeStudent['experience'],
    timetable: timetable as MadeStudent['timetable'],
    kitchen: kitchen as MadeStudent['kitchen'],
    language: sure(language),
  };
};

export const vessels = [
  'Crock',
  'Carboy',
  'Amphora',
  'Barrel',
  'Kvevri',
  'Demijohn',
  'Firkin',
  'Stoneware',
  'Tun',
  'Onggi',
  'Flask',
  'Cask',
] as const;
export type Vessel = (typeof vessels)[number];

/** How students get their group by hand, bench by bench. Two share the name Siobhán Mac Eoin. */
export const benches: Readonly<Record<Vessel, readonly MadeStudent[]>> = {
  Crock: [
    'Noor Haddad-Lindqvist|Haddad-Lindqvist||T|plenty|day|yes|Arabic',
    'Bartholomew Achterberg-Nwosu|Achterberg-Nwosu||H|some|day|yes|Dutch',
    '한서연|한|Han Seo-yeon|H|none|evening|no|Korean',
    'Mireille Dûchesne-Abara|Dûchesne-Abara||T|some|day|yes|French',
  ].map(line),
  Carboy: [
    'Oluwadamilare Fagbenro|Fagbenro||T|some|day|yes|Yoruba',
    'Zofia Wiśniewska-Trąbka|Wiśniewska-Trąbka||T|none|day|no|Polish',
    'Callum Reith|Reith||H|plenty|evening|yes|English',
    'Тамара Белозёрова|Белозёрова|Tamara Belozerova|H|some|day|yes|Russian',
  ].map(line),
  Amphora: [
    'Jorge Peñaloza|Peñaloza||T|none|day|yes|Spanish',
    '林雨桐|林|Lin Yutong|T|some|evening|no|Chinese',
    'Dáithí Ó Conghaile-Byrne|Ó Conghaile-Byrne||H|some|day|yes|Irish',
  ].map(line),
  Barrel: [
    'Anneliese Krumbholz|Krumbholz||H|plenty|day|yes|German',
    'Tariq Zubayri|Zubayri||T|none|day|no|Urdu',
    'Siobhán Mac Eoin|Mac Eoin||H|none|evening|yes|English',
    'Πηνελόπη Καραθάνου|Καραθάνου|Pinelopi Karathanou|T|some|day|yes|Greek',
  ].map(line),
  Kvevri: [
    'Nino Javrishvili-Holm|Javrishvili-Holm||T|plenty|day|yes|Georgian',
    '高橋 ひなた|高橋|Takahashi Hinata|T|none|day|yes|Japanese',
    'Emre Yıldızoğlu|Yıldızoğlu||H|some|day|yes|Turkish',
  ].map(line),
  Demijohn: [
    'Marguerite van der Woestijne|van der Woestijne||H|some|day|yes|Dutch',
    'Kofi Asare-Danquah|Asare-Danquah||T|some|evening|no|Twi',
  ].map(line),
  Firkin: [
    'Beatriz Carvalhal|Carvalhal||T|none|day|yes|Portuguese',
    'Łukasz Przybyłko|Przybyłko||H|plenty|day|yes|Polish',
    'Amina Diallo-Ferrante|Diallo-Ferrante||H|some|evening|yes|Fula',
    'Rowan Thistlewood|Thistlewood||T|none|day|no|English',
  ].map(line),
  Stoneware: [
    'Hoàng Thị Mai Lan|Hoàng||T|some|day|yes|Vietnamese',
    'Piers Attenburrow|Attenburrow||H|none|evening|no|English',
    'Ximena Quispe-Arroyo|Quispe-Arroyo||H|plenty|day|yes|Quechua',
    'נועה ברקאי|ברקאי|Noa Barkai|T|none|day|yes|Hebrew',
  ].map(line),
  Tun: [
    'Ayşe Karadağ|Karadağ||H|some|day|yes|Turkish',
    'Gustav Lindhagen|Lindhagen||T|some|day|no|Swedish',
    'Chiamaka Eze-Obiora|Eze-Obiora||H|none|evening|yes|Igbo',
    'Fergus MacAllan|MacAllan||T|plenty|day|yes|English',
    'Yara Boutros|Boutros||H|none|day|yes|Arabic',
  ].map(line),
  Onggi: [
    '박도윤|박|Park Do-yun|H|some|evening|yes|Korean',
    'Leonie Faßbinder|Faßbinder||T|some|day|yes|German',
    'Malachi Greene-Otieno|Greene-Otieno||T|none|day|no|Swahili',
  ].map(line),
  Flask: [
    'Ruaridh Colquhoun|Colquhoun||T|none|day|yes|Scots',
    'ลลิตา ศรีสวัสดิ์|ศรีสวัสดิ์|Lalita Srisawat|H|some|evening|yes|Thai',
    'Esperanza Villalobos-Iturriaga|Villalobos-Iturriaga||T|plenty|day|no|Spanish',
    'Mateus Figueirôa|Figueirôa||H|some|day|yes|Portuguese',
  ].map(line),
  Cask: [
    'Søren Bjerregaard|Bjerregaard||H|none|day|yes|Danish',
    'Thandiwe Mabaso|Mabaso||T|some|evening|yes|Zulu',
    'ليلى الحموي|الحموي|Layla al-Hamwi|H|plenty|day|yes|Arabic',
  ].map(line),
};

/** Began in Crock and moved to Amphora in week 5, after Crock had handed in. */
export const moved = line('Ingrid Sætre-Okonkwo|Sætre-Okonkwo||H|some|day|yes|Norwegian');
/** One word is the whole name. */
export const oneWord = line('Suharto|||T|none|evening|no|Indonesian');
/** Left in week 3. */
export const dropout = line('Casimir Dufresne|Dufresne||T|some|evening|no|French');
export const namesake = line('Siobhán Mac Eoin|Mac Eoin||T|plenty|day|yes|Irish');

/** Joined late; no one has placed them yet. */
export const latecomers = [
  'Wilhelmina Oyelaran-Castellanos|Oyelaran-Castellanos||T|none|day|yes|English',
  'आरव देशपांडे|देशपांडे|Aarav Deshpande|T|some|evening|yes|Marathi',
].map(line);

/** An address made from the Latin letters of the name; the second of two alike gets a number. */
export function addressOf(student: MadeStudent, isSecond = false): string {
  const latin = (student.reading || student.name)
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .replace(/ł/gi, 'l')
    .replace(/ø/gi, 'o')
    .replace(/æ/gi, 'ae')
    .replace(/ß/g, 'ss')
    .replace(/ı/g, 'i')
    .toLowerCase()
    .replace(/[^a-z\s-]/g, '')
    .trim()
    .split(/\s+/);
  return `${latin[0]}.${latin.length > 1 ? latin.at(-1) : 'q'}${isSecond ? '2' : ''}@${domain}`;
}

/** Who the sign-in page offers, with what they find. */
export const offered = [
  { email: staff.instructor.email, note: 'teaches the course: some to place, some to mark' },
  { email: staff.assistants[0].email, note: 'assists: places and marks, does not release' },
  { email: staff.assistants[1].email, note: 'assists on Thursdays' },
  { email: staff.observer.email, note: 'external examiner: may look, not touch' },
  { email: addressOf(sure(benches.Crock[0])), note: 'in Crock; things to do, and things to read' },
  { email: addressOf(sure(benches.Crock[2])), note: 'in Crock; has not written her critique yet' },
  { email: addressOf(moved), note: 'moved from Crock to Amphora; her credit stayed' },
  { email: addressOf(sure(benches.Firkin[3])), note: 'in Firkin; handed in a day late' },
  { email: addressOf(sure(latecomers[0])), note: 'joined late, in no group yet' },
];

/** When someone has time besides classes: by the letters of the name, so that it is the same at every load. */
export function freeTime({ name, timetable }: MadeStudent): string {
  const seed = [...name].reduce((sum, letter) => (sum * 31 + sure(letter.codePointAt(0))) % 9973, 7);
  const wanted = timetable === 'evening' ? 3 : 5;
  const usual = halfDays.filter((each) => !/^S/.test(each));
  const free = usual.filter((each, at) => (seed * (at + 3)) % 11 < wanted || (at + seed) % 7 === 0);
  return writeHalfDays(new Set(free));
}
