import { randomUUID } from 'node:crypto';
import { expect, it } from '@jest/globals';
import type { Recipients } from '@jigsaw/contract/messages';
import { sure } from '@jigsaw/core/lists';
import { messaging } from '../test/messaging.js';
import type { Browser } from '../test/testServer.js';
import { twoTeams } from '../test/twoTeams.js';

const teams = twoTeams('mu');
const { people, groups, send, list, unread, seen } = messaging(teams);

it('what is new equals a slow recount, whatever was written, read, removed and restored before', async () => {
  const [noor, jorge, amina] = ['noor', 'jorge', 'amina'].map(teams.student).map(sure) as [
    Browser,
    Browser,
    Browser,
  ];
  const everyone = { ilse: teams.given.instructor, noor, jorge, amina };
  const { ilse } = everyone;
  const crock = sure(teams.given.board.groups[0]).id;
  type Name = keyof typeof everyone;
  const names = Object.keys(everyone) as Name[];
  interface Known {
    readonly id: string;
    readonly readers: readonly Name[];
    readonly messages: { readonly id: string; readonly by: Name; isRemoved: boolean }[];
    readonly seen: Map<Name, number>;
  }
  const threads: Known[] = [];
  // One seed, one course of things.
  let state = 20;
  const below = (most: number) => {
    state = (state * 48_271) % 2_147_483_647;
    return state % most;
  };
  const one = <Item>(items: readonly Item[]) => sure(items[below(items.length)]);
  const isNewTo = ({ messages, seen: upTo }: Known, name: Name, at: number) => {
    const { by, isRemoved } = sure(messages[at]);
    return !isRemoved && by !== name && at + 1 > (upTo.get(name) ?? 0) && (name !== 'ilse' || by !== 'ilse');
  };
  const starts: readonly (readonly [Name, Recipients, readonly Name[]])[] = [
    ['ilse', people('noor'), ['ilse', 'noor']],
    ['amina', { kind: 'staff' }, ['ilse', 'amina']],
    ['noor', groups(crock), ['ilse', 'noor', 'jorge']],
    ['ilse', groups(crock), ['ilse', 'noor', 'jorge']],
  ];
  const steps = {
    start: async () => {
      const [by, to, readers] = one(starts);
      const { id } = await send(everyone[by], to);
      threads.push({ id, readers, messages: [{ id, by, isRemoved: false }], seen: new Map() });
    },
    reply: async (known: Known) => {
      const by = one(known.readers);
      const id = randomUUID();
      await everyone[by].post(`/api/threads/${known.id}/messages`).send({ id, text: 'x' }).expect(200);
      known.messages.push({ id, by, isRemoved: false });
      known.seen.set(by, known.messages.length);
    },
    see: async (known: Known) => {
      const by = one(known.readers);
      const upTo = 1 + below(known.messages.length);
      await seen(everyone[by], known.id, upTo);
      known.seen.set(by, Math.max(known.seen.get(by) ?? 0, upTo));
    },
    remove: async (known: Known) => {
      const message = one(known.messages);
      const path = `/api/messages/${message.id}`;
      await (message.isRemoved ? ilse.post(`${path}/restore`) : ilse.delete(path)).expect(200);
      message.isRemoved = !message.isRemoved;
    },
  };
  for (let step = 0; step < 60; step += 1) {
    if (threads.length < 2 || below(6) === 0) await steps.start();
    else await one([steps.reply, steps.reply, steps.see, steps.remove])(one(threads));
    for (const name of names) {
      const own = threads.filter(({ readers }) => readers.includes(name));
      const counted = own.map((known) => [known.id, known.messages.filter((_each, at) => isNewTo(known, name, at)).length] as const); // prettier-ignore
      const fresh = new Map(counted.filter(([, count]) => count > 0));
      expect([step, name, await unread(everyone[name])]).toEqual([step, name, fresh.size]);
      const told = new Map((await list(everyone[name])).threads.flatMap(({ id, unread: count }) => (count > 0 ? [[id as string, count] as const] : []))); // prettier-ignore
      expect([step, name, told]).toEqual([step, name, fresh]);
    }
  }
}, 120_000);
