import { useEffect, useRef, useState } from 'react';

/** So long a recording lasts at most; it stops by itself then. */
export const longestMs = 10 * 60_000;

/** Whether this browser can record at all: it must know how, and the address must be a safe one. */
export const canRecord = (): boolean =>
  typeof MediaRecorder !== 'undefined' &&
  'mediaDevices' in navigator &&
  typeof navigator.mediaDevices?.getUserMedia === 'function'; // eslint-disable-line @typescript-eslint/no-unnecessary-condition -- not there on addresses without TLS

/** What was recorded, until the page lets go of it. */
export interface Recorded {
  /** Where the page itself can play it. */
  readonly address: string;
  readonly file: () => File;
}

type RecorderState =
  | { readonly kind: 'ready' }
  | { readonly kind: 'refused'; readonly sentence: string }
  | { readonly kind: 'recording'; readonly stream: MediaStream; readonly lastsMs: number }
  | { readonly kind: 'recorded'; readonly recorded: Recorded };

/** Records from microphone or camera. They are let go as soon as it stops, and when the page goes on. */
export function useRecorder(what: 'sound' | 'video') {
  const [state, setState] = useState<RecorderState>({ kind: 'ready' });
  const [isAsking, setIsAsking] = useState(false);
  const [name, setName] = useState(what === 'sound' ? 'Recording' : 'Video');
  const latestName = useRef(name);
  const recorder = useRef<MediaRecorder | null>(null);
  const isGone = useRef(false);
  useEffect(() => {
    latestName.current = name.trim() || 'Recording';
  });
  useEffect(() => {
    isGone.current = false;
    return () => {
      isGone.current = true;
      if (recorder.current) letGo(recorder.current.stream);
    };
  }, []);

  const begin = (stream: MediaStream) => {
    const parts: Blob[] = [];
    const made = new MediaRecorder(stream);
    recorder.current = made;
    const begun = Date.now();
    const clock = setInterval(() => {
      const lastsMs = Date.now() - begun;
      setState((now) => (now.kind === 'recording' ? { ...now, lastsMs } : now));
      if (lastsMs >= longestMs) made.stop();
    }, 500);
    made.ondataavailable = ({ data }) => parts.push(data);
    made.onstop = () => {
      clearInterval(clock);
      letGo(stream);
      if (isGone.current) return;
      // Servers and players know kinds of files by their plain type, without the codecs.
      const type = made.mimeType.split(';')[0] ?? '';
      const blob = new Blob(parts, { type });
      const file = () => new File([blob], `${latestName.current}.${endingOf(type)}`, { type });
      setState({ kind: 'recorded', recorded: { address: URL.createObjectURL(blob), file } });
    };
    made.start(1000);
    setState({ kind: 'recording', stream, lastsMs: 0 });
  };
  const start = async () => {
    if (state.kind === 'recorded') URL.revokeObjectURL(state.recorded.address);
    setIsAsking(true);
    try {
      const stream = await navigator.mediaDevices.getUserMedia({ audio: true, video: what === 'video' });
      if (isGone.current) letGo(stream);
      else begin(stream);
    } catch (error) {
      setState({ kind: 'refused', sentence: sentenceOf(error, what) });
    } finally {
      setIsAsking(false);
    }
  };
  return { state, isAsking, name, setName, start, stop: () => recorder.current?.stop() };
}

function letGo(stream: MediaStream): void {
  for (const track of stream.getTracks()) track.stop();
}

function sentenceOf(error: unknown, what: 'sound' | 'video'): string {
  const device = what === 'sound' ? 'microphone' : 'camera and microphone';
  if (error instanceof DOMException && error.name === 'NotAllowedError')
    return `This page may not use the ${device}. Allow it in the browser, then start again, or attach a file.`;
  return `The ${device} cannot be reached. Connect it, then start again, or attach a file.`;
}

/** The ending of a file's name for what browsers record. */
const endingOf = (type: string): string => {
  if (type.endsWith('/mp4')) return type.startsWith('audio') ? 'm4a' : 'mp4';
  return type.endsWith('/ogg') ? 'ogg' : 'webm';
};
