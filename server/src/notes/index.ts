export { NotesModule } from './notes.module.js';
export { NoteRow } from './notes.rows.js';
