export const firstInstructor = {
  name: 'Dr. Ilse Marrow',
  email: 'ilse.marrow@quillmere.example',
  password: 'brine and bubbles',
};

export const students = [
  { number: 'fe-0401', family: 'Okafor', given: 'Ada' },
  { number: 'fe-0402', family: 'Peñaloza', given: 'Jorge' },
  { number: 'fe-0403', family: 'Haddad-Lindqvist', given: 'Noor' },
  { number: 'fe-0404', family: 'Wiśniewska', given: 'Zofia' },
  { number: 'fe-0405', family: 'Reith', given: 'Callum' },
  { number: 'fe-0406', family: 'Boutros', given: 'Yara' },
] as const;

export const emailOf = (given: string) => `${given.toLowerCase()}@quillmere.example`;
export const studentPassword = 'salt, water, time';

/** A class file as a registry saves it: semicolons, quotes, an attribute of its own. */
export const classFile = `Matrikel;Surname;First;E-Mail;Lab experience\n${students
  .map(
    (student, at) =>
      `${student.number};"${student.family}";${student.given};${emailOf(student.given)};${at % 2 ? 'some' : 'none'}`,
  )
  .join('\n')}\nfe-0407;Broken;Row;not an address;none\n`;
