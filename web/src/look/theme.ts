/** Light, dark, or as the machine has it. Kept in this browser. */
export type Theme = 'light' | 'dark' | 'system';
const key = 'jigsaw.theme';

export function chosenTheme(): Theme {
  const stored = localStorage.getItem(key);
  return stored === 'light' || stored === 'dark' ? stored : 'system';
}

export function applyTheme(theme: Theme): void {
  const isDark =
    theme === 'dark' || (theme === 'system' && matchMedia('(prefers-color-scheme: dark)').matches);
  document.documentElement.dataset['theme'] = isDark ? 'dark' : 'light';
}

export function chooseTheme(theme: Theme): void {
  localStorage.setItem(key, theme);
  applyTheme(theme);
}
