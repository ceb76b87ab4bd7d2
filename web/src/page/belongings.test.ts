import { beforeEach, expect, it } from '@jest/globals';
import { belongTo, forgetBelongings } from './belongings.js';

beforeEach(() => {
  localStorage.clear();
  sessionStorage.clear();
});
const kept = () => [
  sessionStorage.getItem('draft post 1'),
  localStorage.getItem('board'),
  localStorage.getItem('jigsaw.theme'),
];

it('what a browser keeps is one person’s: the next finds nothing, and all is gone at sign-out', () => {
  belongTo('noor');
  sessionStorage.setItem('draft post 1', 'secret');
  localStorage.setItem('board', 'moves');
  localStorage.setItem('jigsaw.theme', 'dark');
  belongTo('noor');
  expect(kept()).toEqual(['secret', 'moves', 'dark']);
  belongTo('jorge');
  expect(kept()).toEqual([null, null, 'dark']);
  sessionStorage.setItem('draft post 1', 'his');
  forgetBelongings();
  expect(kept()).toEqual([null, null, 'dark']);
});
