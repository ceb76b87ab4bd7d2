import type { Role } from '../course/index.js';
import { fold } from '../text/index.js';

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
