import { sure } from '@jigsaw/core/lists';
import type { Mood, School, SchoolCourse } from './school.js';

const style = `
  body { font: 14px/20px system-ui, sans-serif; margin: 0; background: #f4f3ef; color: #1b1b1a; }
  .made-up { border: 1px dashed #1b1b1a; border-width: 0 0 1px; padding: 8px 24px; background: #fff; }
  main { max-width: 960px; margin: 24px auto; padding: 0 24px; }
  h1 { font-size: 22px; line-height: 28px; margin: 0 0 4px; } h2 { font-size: 15px; margin: 28px 0 8px; }
  table { border-collapse: collapse; width: 100%; background: #fff; }
  th, td { text-align: start; padding: 4px 10px; border-bottom: 1px solid #d9d6cd; } th { font-size: 12px; color: #55534d; }
  form { display: inline-flex; gap: 6px; align-items: end; } .wide { flex-wrap: wrap; } td:first-child { white-space: nowrap; } label { display: grid; font-size: 12px; color: #55534d; }
  input, select, button { font: inherit; height: 30px; padding: 0 8px; border: 1px solid #8a877e; border-radius: 3px; background: #fff; color: inherit; }
  button { font-weight: 600; cursor: pointer; } button[aria-pressed=true] { background: #1b1b1a; color: #fff; }
  :focus-visible { outline: 2px solid #1b1b1a; outline-offset: 2px; } a { color: inherit; } small { color: #55534d; }
`;

const escapes: Readonly<Record<string, string>> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
  "'": '&#39;',
};
const text = (value: string) => value.replace(/[&<>"']/g, (sign) => sure(escapes[sign]));

const page = (
  title: string,
  body: string,
) => `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${text(title)}</title>
<meta name="viewport" content="width=device-width"><style>${style}</style></head><body>
<div class="made-up"><b>Made up.</b> This stands in for a school’s registrar, so that a course has something to follow.</div><main>${body}</main></body></html>`;

const moods: Readonly<Record<Mood, string>> = {
  well: 'Answers as it should',
  away: 'Closed',
  nonsense: 'Answers nonsense',
};
const moodForm = (current: Mood) => `<h2>How it answers Jigsaw Room</h2><form method="post" action="/mood">
${Object.entries(moods)
  .map(
    ([mood, says]) =>
      `<button name="mood" value="${mood}" aria-pressed="${mood === current}">${says}</button>`,
  )
  .join('')}</form>`;

export const frontPage = (school: School) =>
  page(
    'Registrar of Quillmere Polytechnic',
    `<h1>Registrar of Quillmere Polytechnic</h1><h2>Courses</h2><table><thead><tr><th>Code<th>Course<th>People<th>Sections</thead><tbody>
${school
  .list()
  .map(
    ({ code, title, people, sections }) =>
      `<tr><td>${text(code)}<td><a href="/courses/${encodeURIComponent(code)}">${text(title)}</a><td>${people.length}<td>${text(sections.map((section) => section.title).join(', '))}`,
  )
  .join('')}</tbody></table>${moodForm(school.mood)}`,
  );

export function coursePage({ code, title, people, sections }: SchoolCourse, mood: Mood): string {
  const at = `/courses/${encodeURIComponent(code)}`;
  const options = (chosen: string | null) =>
    [{ id: '', title: 'none' }, ...sections]
      .map(
        ({ id, title: name }) =>
          `<option value="${text(id)}"${id === (chosen ?? '') ? ' selected' : ''}>${text(name)}</option>`,
      )
      .join('');
  const rows = people.map(({ name, reading, email, number, role, section }) => {
    const who = `<input type="hidden" name="email" value="${text(email)}">`;
    return `<tr><td>${text(number)}<td><bdi>${text(name)}</bdi> ${text(reading)} <small>${text(email)}</small><td>${role}
<td><form method="post" action="${at}/seat">${who}<select name="section" aria-label="Section of ${text(name)}">${options(section)}</select><button>Move</button></form>
<td><form method="post" action="${at}/drop">${who}<button aria-label="Drop ${text(name)}">Drop</button></form>`;
  });
  return page(
    `${code} · Registrar`,
    `<a href="/">All courses</a><h1>${text(code)} · ${text(title)}</h1><small>${people.length} people. What changes here reaches Jigsaw Room at its next sync.</small>
<h2>Enrol someone</h2><form class="wide" method="post" action="${at}/enrol">
<label>Name<input name="name" required></label><label>Family name<input name="familyName"></label><label>Address<input name="email" type="email" required></label>
<label>Number<input name="number"></label><label>Section<select name="section">${options(null)}</select></label><button>Enrol</button></form>
<h2>Enrolled</h2><table><thead><tr><th>Number<th>Name<th>Role<th>Section<th></thead><tbody>${rows.join('')}</tbody></table>${moodForm(mood)}`,
  );
}
