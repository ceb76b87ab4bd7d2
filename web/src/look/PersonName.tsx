import { useEffect } from 'react';
import { styled } from 'styled-components';
import { sure } from '@jigsaw/core/lists';

const Name = styled.bdi`
  overflow-wrap: anywhere;
`;
const Latin = styled.span`
  color: var(--ink-3);
  font-size: 0.92em;
  font-weight: 400;
`;

/** Fonts for names in other scripts come only to pages on which such a name stands. */
const scripts: readonly {
  readonly test: RegExp;
  readonly lang: string;
  readonly load: () => Promise<unknown>;
}[] = [
  { test: /\p{Script=Hangul}/u, lang: 'ko', load: () => import('@fontsource-variable/noto-sans-kr') },
  {
    test: /[\p{Script=Hiragana}\p{Script=Katakana}]/u,
    lang: 'ja',
    load: () => import('@fontsource-variable/noto-sans-jp'),
  },
  { test: /\p{Script=Han}/u, lang: 'zh', load: () => import('@fontsource-variable/noto-sans-jp') },
  {
    test: /[\p{Script=Greek}\p{Script=Cyrillic}]/u,
    lang: '',
    load: () => import('@fontsource-variable/noto-sans'),
  },
  { test: /\p{Script=Hebrew}/u, lang: 'he', load: () => import('@fontsource-variable/noto-sans-hebrew') },
  { test: /\p{Script=Arabic}/u, lang: 'ar', load: () => import('@fontsource-variable/noto-sans-arabic') },
  { test: /\p{Script=Thai}/u, lang: 'th', load: () => import('@fontsource-variable/noto-sans-thai') },
  {
    test: /\p{Script=Devanagari}/u,
    lang: 'hi',
    load: () => import('@fontsource-variable/noto-sans-devanagari'),
  },
];

const scriptOf = (name: string) => scripts.find((script) => script.test.test(name));

/** The fonts of every script in a text, for names that stand in a sentence. */
export function useFontsOf(text: string): void {
  useEffect(() => {
    for (const { test, load } of scripts) if (test.test(text)) void load();
  }, [text]);
}

/** A name in its own script, with its reading in Latin letters behind it. */
export function PersonName({ name, reading }: { readonly name: string; readonly reading?: string | null }) {
  const script = scriptOf(name);
  useFontsOf(name);
  return (
    <>
      <Name lang={script?.lang || undefined}>{name}</Name>
      {reading && (
        <>
          {' '}
          <Latin>{reading}</Latin>
        </>
      )}
    </>
  );
}

/** The first letters that stand for someone in a small square. */
export function initials(name: string): string {
  const words = name
    .replace(/^(Dr|Prof)\.?\s+/, '')
    .split(/[\s-]+/)
    .filter((word) => /^\p{L}/u.test(word));
  const first = [...(words[0] ?? '?')][0] ?? '?';
  const last = words.length > 1 ? ([...sure(words.at(-1))][0] ?? '') : '';
  return (first + last).toUpperCase();
}
