import { afterEach, describe, expect, it } from '@jest/globals';
import { screen, waitFor } from '@testing-library/react';
import { aCopy, aFile, aGroup, aHandIn, aMember, aPart, aRoom, aRoomItem, courseId, id } from '../test/data.js';
import { inCourse, Refusal, showPage } from '../test/showPage.js';

const roomsPath = `GET courses/${courseId}/rooms`;
const copyPath = `copies/${id('copy')}`;
const noor = aMember('Noor', { isYou: true });
const jorge = aMember('Jorge');
const work = (copy: ReturnType<typeof aCopy>, more = {}) => showPage(inCourse(`hand-in/${copy.id}`), { [`GET ${copyPath}`]: copy, ...more }, 'student');

describe('what is due', () => {
  it('puts what is owed first and says what is late', async () => {
    const items = [
      aRoomItem({
        title: 'Salt trial',
        copyId: id('salt'),
        state: 'handed-in',
        handedInAt: '2026-11-10T10:00:00.000Z',
        late: { minutes: 160, deduction: '4' },
      }),
      aRoomItem({ title: 'Overdue sheet', copyId: id('over'), due: '2020-01-01T00:00:00.000Z' }),
    ];
    showPage(inCourse('due'), { [roomsPath]: { rooms: [aRoom({ items })] } }, 'student');
    const [first, second] = await screen.findAllByRole('link', { name: /Crock/ });
    expect(first).toHaveTextContent(/Overdue sheet.*Late/);
    expect(second).toHaveTextContent('Handed in Tue 10 Nov, 10:00, late 2 h 40 min');
  });

  it('tells a student in no group what happens next', async () => {
    showPage(inCourse('due'), { [roomsPath]: { rooms: [] } }, 'student');
    expect(await screen.findByRole('heading', { name: 'You are in no group yet' })).toBeInTheDocument();
  });
});

describe('a room', () => {
  it('opens where something waits, and names the members', async () => {
    const lab = aRoom({ group: { ...aGroup('Tuesday lab', 1), setName: 'Lab sections' }, items: [] });
    showPage(inCourse('room'), { [roomsPath]: { rooms: [lab, aRoom()] } }, 'student');
    expect(await screen.findByRole('heading', { name: 'Crock', level: 1 })).toBeInTheDocument();
    expect(screen.getByRole('list', { name: 'Members' })).toHaveTextContent('Noor youJorge');
    expect(screen.getByText(/Only the 2 of you and the staff can see this room/)).toBeInTheDocument();
    expect(screen.getByRole('link', { name: /Ferment report/ })).toHaveAttribute('href', inCourse(`hand-in/${id('copy')}`));
  });

  it('is not there for a group that is not one’s own', async () => {
    showPage(inCourse(`room/${id('Carboy')}`), { [roomsPath]: { rooms: [aRoom()] } }, 'student');
    expect(await screen.findByRole('heading', { name: 'Nothing here' })).toBeInTheDocument();
  });

  it('shows staff all rooms, who is in them and what is missing', async () => {
    const late = aRoom({ group: aGroup('Carboy', 2), items: [aRoomItem({ due: '2020-01-01T00:00:00.000Z' })] });
    showPage(inCourse('rooms'), {
      [roomsPath]: { rooms: [aRoom({ items: [aRoomItem({ state: 'handed-in', handedInAt: '2026-11-10T10:00:00.000Z' })] }), late] },
    });
    expect(await screen.findByRole('heading', { name: 'Carboy' })).toBeInTheDocument();
    expect(screen.getAllByText('Missing')).toHaveLength(1);
    expect(screen.getByText('Handed in Tue 10 Nov, 10:00')).toBeInTheDocument();
  });
});

describe('working on a hand-in', () => {
  it('fills the blanks of the brief, and keeps the others’ parts apart', async () => {
    work(aCopy({ parts: [aPart(noor, 'Mine here'), aPart(jorge, 'It fell to 4.4')], state: 'in-work' }));
    expect(await screen.findByRole('region', { name: 'Brief' })).toHaveTextContent('For Crock');
    expect(screen.getByRole('region', { name: 'What the others wrote' })).toHaveTextContent('It fell to 4.4');
    expect(screen.getByRole('region', { name: 'What the others wrote' })).not.toHaveTextContent('Mine here');
    expect(screen.getByRole('list', { name: 'Who has put in what' })).toHaveTextContent('Noor (you)2 wordsJorge4 words');
  });

  it('offers to take out one’s own files only, with the way back', async () => {
    const copy = aCopy({ files: [aFile('mine.csv', noor), aFile('theirs.csv', jorge)], state: 'in-work' });
    const { user, writes } = work(copy, {
      [`DELETE ${copyPath}/files/${id('mine.csv')}`]: aCopy({ files: [aFile('theirs.csv', jorge)] }),
      [`POST ${copyPath}/files/${id('mine.csv')}/put-back`]: copy,
    });
    await user.click(await screen.findByRole('button', { name: 'Take mine.csv out' }));
    expect(screen.queryByRole('button', { name: 'Take theirs.csv out' })).not.toBeInTheDocument();
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(writes().map((write) => write.method)).toEqual(['DELETE', 'POST']));
    expect(screen.getByRole('link', { name: 'Download theirs.csv' })).toHaveAttribute('href', `/api/${copyPath}/files/${id('theirs.csv')}`);
  });

  it('says what is missing before it can be handed in', async () => {
    work(aCopy());
    expect(await screen.findByRole('button', { name: 'Hand in for all 2' })).toBeDisabled();
    expect(screen.getByText('Write something or add a file first.')).toBeInTheDocument();
  });

  it('tells what lateness costs before anybody presses', async () => {
    work(aCopy({ files: [aFile('mine.csv', noor)], lateNow: { minutes: 1685, deduction: '8' } }));
    expect(await screen.findByText('late 1 d 4 h 5 min, −8 points')).toBeInTheDocument();
    expect(screen.getByText('if handed in now')).toBeInTheDocument();
  });

  it('hands in the attempt that is in view, and shows a teammate’s that came first', async () => {
    const { user, writes } = work(aCopy({ files: [aFile('mine.csv', noor)] }), {
      [`POST ${copyPath}/hand-in`]: new Refusal(409, 'stale-write', 'A teammate handed in a moment ago.'),
    });
    await user.click(await screen.findByRole('button', { name: 'Hand in for all 2' }));
    expect(await screen.findByRole('alert')).toHaveTextContent('A teammate handed in a moment ago.');
    expect(writes()[0]!.body).toEqual({ attempt: 1 });
  });

  it('says who handed in, when, and for whom it counts', async () => {
    work(aCopy({ files: [aFile('mine.csv', noor)], handIns: [aHandIn()], state: 'handed-in' }));
    expect(await screen.findByRole('heading', { name: 'Handed in' })).toBeInTheDocument();
    expect(screen.getByRole('complementary', { name: 'Hand in' })).toHaveTextContent('Jorge handed in Tue 10 Nov, 10:00, on time. It counts for Noor, Jorge.');
    expect(screen.getByRole('button', { name: 'Hand in again for all 2' })).toBeDisabled();
  });

  it('offers to hand in again what was added since', async () => {
    work(aCopy({ files: [aFile('mine.csv', noor)], handIns: [aHandIn()], state: 'changed-since' }));
    expect(await screen.findByRole('heading', { name: 'Handed in, changed since' })).toBeInTheDocument();
    expect(screen.getByRole('button', { name: 'Hand in again for all 2' })).toBeEnabled();
  });

  it('can be read but not changed once closed', async () => {
    work(aCopy({ access: 'read-only', mayHandIn: false, files: [aFile('mine.csv', noor)] }));
    expect(await screen.findByRole('alert')).toHaveTextContent('This is closed.');
    expect(screen.queryByRole('button', { name: /Hand in/ })).not.toBeInTheDocument();
    expect(screen.queryByRole('textbox')).not.toBeInTheDocument();
  });

  it('has one answer for what is not there and what is not theirs', async () => {
    showPage(inCourse(`hand-in/${id('other')}`), {}, 'student');
    expect(await screen.findByRole('heading', { name: 'Nothing here' })).toBeInTheDocument();
  });
});

describe('adding a file', () => {
  const RealRequest = globalThis.XMLHttpRequest;
  afterEach(() => {
    globalThis.XMLHttpRequest = RealRequest;
  });

  /** Answers every upload by hand. */
  function standInForUploads() {
    const uploads: StandIn[] = [];
    class StandIn {
      upload: { onprogress?: (event: object) => void } = {};
      onload?: () => void;
      onabort?: () => void;
      status = 0;
      responseText = '';
      address = '';
      open(_method: string, address: string): void {
        this.address = address;
      }
      setRequestHeader(): void {}
      send(): void {
        uploads.push(this);
      }
      abort(): void {
        this.onabort?.();
      }
      answer(status: number, body: unknown): void {
        this.status = status;
        this.responseText = JSON.stringify(body);
        this.onload?.();
      }
    }
    globalThis.XMLHttpRequest = StandIn as never;
    return uploads;
  }
  const input = () => document.querySelector<HTMLInputElement>('input[type=file]')!;

  it('shows how far it is, and can be cancelled', async () => {
    const uploads = standInForUploads();
    const { user } = work(aCopy());
    await screen.findByRole('button', { name: 'Add files…' });
    await user.upload(input(), new File(['pH'], 'readings.csv', { type: 'text/csv' }));
    expect(uploads[0]!.address).toBe(`/api/${copyPath}/files?name=readings.csv&type=text%2Fcsv`);
    uploads[0]!.upload.onprogress?.({ lengthComputable: true, loaded: 1, total: 4 });
    await waitFor(() => expect(screen.getByRole('progressbar', { name: 'Adding readings.csv' })).toHaveAttribute('aria-valuenow', '25'));
    await user.click(screen.getByRole('button', { name: 'Cancel' }));
    expect(await screen.findByRole('alert')).toHaveTextContent('readings.csv was not added.');
    expect(screen.queryByRole('progressbar')).not.toBeInTheDocument();
  });

  it('says in the server’s words why a file was refused', async () => {
    const uploads = standInForUploads();
    const { user } = work(aCopy());
    await screen.findByRole('button', { name: 'Add files…' });
    await user.upload(input(), new File(['x'], 'huge.bin'));
    uploads[0]!.answer(413, { type: '/problems/too-large', title: 'Too large', status: 413, detail: 'The file is over 250 MB, which is the most here.' });
    expect(await screen.findByRole('alert')).toHaveTextContent('huge.bin: The file is over 250 MB, which is the most here.');
  });

  it('asks for the copy anew once a file has arrived', async () => {
    const uploads = standInForUploads();
    const { user, set } = work(aCopy());
    await screen.findByRole('button', { name: 'Add files…' });
    await user.upload(input(), new File(['pH'], 'readings.csv'));
    const arrived = aCopy({ files: [aFile('readings.csv', noor)] });
    set(`GET ${copyPath}`, arrived);
    uploads[0]!.answer(200, arrived);
    expect(await screen.findByRole('link', { name: 'Download readings.csv' })).toBeInTheDocument();
  });
});
