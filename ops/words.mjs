/** Fails on words that docs/words.md replaces, and on buttons that say more than one sentence. */
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import ts from 'typescript';

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));

/** @returns the refused words of the catalogue: {words, say, matches(text)}. */
export function refusedWords(catalogue) {
  return catalogue
    .slice(catalogue.indexOf('## Everyday words'))
    .split('\n')
    .filter((line) => line.startsWith('| ') && !line.startsWith('| Say '))
    .flatMap((line) => {
      const [, say, not] = line.split('|').map((cell) => cell.trim());
      return not.split(', ').map((entry) => {
        const label = /^“(.+)”$/.exec(entry)?.[1];
        const pattern = escaped(label ?? entry);
        const whole = new RegExp(`^${pattern}$`, label === undefined ? 'i' : '');
        const inside = new RegExp(`(?<![\\w-])${pattern}(?![\\w-])`, 'i');
        return { words: entry, say, matches: (text) => (label === undefined ? inside : whole).test(text) };
      });
    });
}

/** @returns every text of a source file, comments too: {line, text, isButton}. */
export function textsOf(file, content) {
  const kind = /\.[jt]sx$/.test(file) ? ts.ScriptKind.TSX : ts.ScriptKind.TS;
  const source = ts.createSourceFile(file, content, ts.ScriptTarget.Latest, true, kind);
  const texts = [];
  const add = (at, text, isButton = false) =>
    texts.push({
      line: source.getLineAndCharacterOfPosition(at).line + 1,
      text: text.replace(/\s+/g, ' ').trim(),
      isButton,
    });
  const visit = (node, isButton) => {
    if (ts.isImportDeclaration(node) || ts.isExportDeclaration(node)) return;
    const inButton =
      isButton || (ts.isJsxElement(node) && buttons.has(node.openingElement.tagName.getText(source)));
    const isText = ts.isJsxText(node) || ts.isStringLiteralLike(node) || ts.isTemplateExpression(node);
    // A blank stands for what is put into a template, so that words on both sides are not read as one.
    if (ts.isTemplateExpression(node))
      add(
        node.getStart(source),
        [node.head.text, ...node.templateSpans.map((span) => span.literal.text)].join(' … '),
        isButton,
      );
    else if (isText) add(node.getStart(source), node.text, isButton);
    ts.forEachChild(node, (child) => visit(child, ts.isJsxAttributes(node) ? false : inButton));
  };
  visit(source, false);
  for (const [comment, at] of commentsOf(source)) add(at, comment);
  return texts;
}

/** @returns what is wrong in one file, as lines to read. */
export function faultsOf(file, content, refused) {
  const isProse = file.endsWith('.md');
  const texts = isProse
    ? content
        .split('\n')
        .map((text, at) => ({ line: at + 1, text: text.replace(/`[^`]*`/g, ' … '), isButton: false }))
    : textsOf(file, content);
  return texts.flatMap(({ line, text, isButton }) => [
    ...refused
      .filter((each) => each.matches(text))
      .map((each) => `${file}:${line}: “${each.words.replace(/[“”]/g, '')}”. Say: ${each.say}`),
    ...(isButton && /[.!?]\s+\S/.test(text) ? [`${file}:${line}: a button says one thing: “${text}”`] : []),
  ]);
}

const buttons = new Set(['Button', 'ButtonLink', 'ToggleButton', 'MenuItem']);
const escaped = (words) => words.replace(/[.*+?^${}()|[\]\\]/g, '\\$&').replace(/ /g, '\\s+');

function* commentsOf(source) {
  const text = source.getFullText();
  const seen = new Set();
  const ranges = (node) => [
    ...(ts.getLeadingCommentRanges(text, node.getFullStart()) ?? []),
    ...(ts.getTrailingCommentRanges(text, node.getEnd()) ?? []),
  ];
  const walk = function* (node) {
    for (const { pos, end } of ranges(node))
      if (!seen.has(pos)) {
        seen.add(pos);
        yield [text.slice(pos, end).replace(/^\s*(\/\*\*?|\*\/|\*|\/\/)/gm, ''), pos];
      }
    for (const child of node.getChildren(source)) yield* walk(child);
  };
  yield* walk(source);
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) {
  const refused = refusedWords(readFileSync(path.join(root, 'docs/words.md'), 'utf8'));
  const files = execFileSync('git', ['ls-files'], { cwd: root, encoding: 'utf8' })
    .split('\n')
    .filter((file) =>
      /^(core|contract|server|web|demo)\/src\/.*\.tsx?$|^ops\/.*\.mjs$|^(docs\/.*|README)\.md$/.test(file),
    )
    .filter((file) => !/test|\/migrations\/|^docs\/words\.md$/.test(file));
  const faults = files.flatMap((file) =>
    faultsOf(file, readFileSync(path.join(root, file), 'utf8'), refused),
  );
  for (const fault of faults) console.log(fault);
  console.log(`words: ${faults.length} to change in ${files.length} files`);
  if (faults.length > 0) process.exitCode = 1;
}
