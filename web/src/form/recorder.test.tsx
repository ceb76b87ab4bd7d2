import { afterEach, describe, expect, it, jest } from '@jest/globals';
import { act, screen, waitFor, within } from '@testing-library/react';
import { sure } from '@jigsaw/core/lists';
import { activityId, composer } from '../test/composer.js';
import { anActivity, id } from '../test/data.js';
import { realUploads, standInForUploads } from '../test/uploads.js';

/** A microphone that hears two pieces. */
class StandInRecorder {
  static latest: StandInRecorder | null = null;
  mimeType = 'audio/webm;codecs=opus';
  ondataavailable: ((event: { data: Blob }) => void) | null = null;
  onstop: (() => void) | null = null;
  constructor(readonly stream: { getTracks: () => { stop: () => void }[] }) {
    StandInRecorder.latest = this;
  }
  start() {
    this.ondataavailable?.({ data: new Blob(['one']) });
  }
  stop() {
    this.ondataavailable?.({ data: new Blob(['two']) });
    this.onstop?.();
  }
}
const stopped = jest.fn();
function withMicrophone(getUserMedia: () => Promise<unknown>) {
  Object.assign(globalThis, { MediaRecorder: StandInRecorder });
  Object.defineProperty(navigator, 'mediaDevices', { value: { getUserMedia }, configurable: true });
  Object.assign(URL, { createObjectURL: () => 'blob:recorded', revokeObjectURL: () => undefined });
}
const hears = () => Promise.resolve({ getTracks: () => [{ stop: stopped }] });

afterEach(() => {
  realUploads();
  stopped.mockClear();
  Reflect.deleteProperty(globalThis, 'MediaRecorder');
  Reflect.deleteProperty(navigator, 'mediaDevices');
});

const activity = anActivity();
const composing = () =>
  composer(activity, {
    [`GET activities/${activityId}`]: activity,
    [`PUT activities/${activityId}`]: (body: object) => ({ ...activity, ...body }),
  });
const attached = async () => within(await screen.findByRole('region', { name: 'Attached files' }));

describe('what is recorded in the browser', () => {
  it('is heard before it is attached under its name; the microphone is let go when it stops', async () => {
    withMicrophone(hears);
    const sent = standInForUploads();
    const { user, writes } = composing();
    await user.click((await attached()).getByRole('button', { name: 'Record sound…' }));
    const sheet = within(await screen.findByRole('dialog', { name: 'Record sound' }));
    expect(sheet.getByRole('button', { name: 'Attach' })).toBeDisabled();
    await user.click(sheet.getByRole('button', { name: 'Start recording' }));
    expect(await sheet.findByRole('timer')).toHaveTextContent('0:00');
    expect(stopped).not.toHaveBeenCalled();
    await user.click(sheet.getByRole('button', { name: 'Stop' }));
    expect(stopped).toHaveBeenCalledTimes(1);
    expect(sheet.getByLabelText('What was recorded')).toHaveAttribute('src', 'blob:recorded');
    const name = sheet.getByRole('textbox', { name: 'Name of the file' });
    await user.clear(name);
    await user.type(name, 'How to taste');
    await user.click(sheet.getByRole('button', { name: 'Attach' }));
    expect(sure(sent[0]).address).toBe(`/api/activities/${activityId}/files?name=How+to+taste.webm&type=audio%2Fwebm`); // prettier-ignore
    act(() => sure(sent[0]).answer(200, { id: id('sound'), name: 'How to taste.webm', mediaType: 'audio/webm', sizeBytes: 6, isPerGroup: false })); // prettier-ignore
    await waitFor(() => expect(writes().at(-1)?.body).toMatchObject({ files: [{ name: 'How to taste.webm' }] })); // prettier-ignore
    expect((await attached()).getByLabelText('Play How to taste.webm')).toBeInTheDocument();
  });

  it('is not lost when its sheet is closed', async () => {
    withMicrophone(hears);
    const sent = standInForUploads();
    const { user } = composing();
    await user.click((await attached()).getByRole('button', { name: 'Record sound…' }));
    await user.click(await screen.findByRole('button', { name: 'Start recording' }));
    await user.click(await screen.findByRole('button', { name: 'Stop' }));
    await user.keyboard('{Escape}');
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    expect(sent).toHaveLength(1);
  });

  it('says what to do where it may not hear, and lets go of the microphone when the sheet is closed', async () => {
    withMicrophone(() => Promise.reject(new DOMException('no', 'NotAllowedError')));
    const { user, unmount } = composing();
    await user.click((await attached()).getByRole('button', { name: 'Record video…' }));
    await user.click(await screen.findByRole('button', { name: 'Start recording' }));
    expect(await screen.findByText('This page may not use the camera and microphone. Allow it in the browser, then start again, or attach a file.')).toBeInTheDocument(); // prettier-ignore
    unmount();
    withMicrophone(hears);
    const again = composing();
    await again.user.click((await attached()).getByRole('button', { name: 'Record sound…' }));
    await again.user.click(await screen.findByRole('button', { name: 'Start recording' }));
    await screen.findByRole('timer');
    await again.user.keyboard('{Escape}');
    await waitFor(() => expect(stopped).toHaveBeenCalled());
  });

  it('is not offered where the browser cannot', async () => {
    composing();
    expect((await attached()).getByRole('button', { name: 'Attach files…' })).toBeInTheDocument();
    expect((await attached()).queryByRole('button', { name: /Record/ })).not.toBeInTheDocument();
  });
});
