import { Circle, Square } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { styled } from 'styled-components';
import { ProblemStrip } from '../api/index.js';
import { Button, Field, Sheet, Small, useNotice } from '../look/index.js';
import type { Recorded } from './useRecorder.js';
import { longestMs, useRecorder } from './useRecorder.js';

const Stage = styled.div`
  display: grid;
  gap: 12px;
  justify-items: start;
  video {
    width: 100%;
    max-height: 320px;
    background: var(--ink);
    border-radius: var(--r-2);
  }
  audio {
    width: 100%;
  }
  .clock {
    font: var(--h-32);
    font-variant-numeric: tabular-nums;
  }
`;

interface RecordSheetProps {
  readonly what: 'sound' | 'video';
  readonly onDone: (file: File) => void;
  readonly onClose: () => void;
}

/** Sound or video from this machine, heard or seen before it is attached. */
export function RecordSheet({ what, onDone, onClose }: RecordSheetProps) {
  const notice = useNotice();
  const recorder = useRecorder(what);
  const { state } = recorder;
  const attach = (recorded: Recorded) => {
    onDone(recorded.file());
    onClose();
  };
  const close = () => {
    if (state.kind === 'recorded') {
      const { recorded } = state;
      notice('Recording discarded', { label: 'Undo', do: () => onDone(recorded.file()) });
    }
    onClose();
  };
  return (
    <Sheet title={what === 'sound' ? 'Record sound' : 'Record video'} onClose={close}>
      <Stage>
        {state.kind === 'refused' && <ProblemStrip>{state.sentence}</ProblemStrip>}
        {state.kind === 'recording' && (
          <>
            {what === 'video' && <Live stream={state.stream} />}
            <span className="clock" role="timer" aria-label="Recorded so far">
              {sayClock(state.lastsMs)}
            </span>
            <Button kind="main" onPress={recorder.stop}>
              <Square size={16} aria-hidden="true" />
              Stop
            </Button>
          </>
        )}
        {state.kind === 'recorded' && (
          <>
            {what === 'sound' ? (
              <audio controls src={state.recorded.address} aria-label="What was recorded" />
            ) : (
              <video controls src={state.recorded.address} aria-label="What was recorded" />
            )}
            <Field
              label="Name of the file"
              value={recorder.name}
              onChange={recorder.setName}
              maxLength={200}
            />
            <div style={{ display: 'flex', gap: 12, alignItems: 'center' }}>
              <Button onPress={() => void recorder.start()}>Record again</Button>
              <a href={state.recorded.address} download={state.recorded.file().name}>
                Save on this machine
              </a>
            </div>
          </>
        )}
        {(state.kind === 'ready' || state.kind === 'refused') && (
          <Button kind="main" isDisabled={recorder.isAsking} onPress={() => void recorder.start()}>
            <Circle size={16} aria-hidden="true" />
            {recorder.isAsking ? 'Waiting for your permission' : 'Start recording'}
          </Button>
        )}
        <Small>
          Up to {longestMs / 60_000} minutes. Write what is said into the text as well, for those who cannot
          hear it.
        </Small>
      </Stage>
      <footer>
        <Button
          kind="main"
          isDisabled={state.kind !== 'recorded'}
          onPress={() => state.kind === 'recorded' && attach(state.recorded)}
        >
          Attach
        </Button>
      </footer>
    </Sheet>
  );
}

/** What the camera sees now, without its sound. */
function Live({ stream }: { readonly stream: MediaStream }) {
  const video = useRef<HTMLVideoElement>(null);
  useEffect(() => {
    if (video.current) video.current.srcObject = stream;
  }, [stream]);
  return <video ref={video} autoPlay muted playsInline aria-label="What the camera sees" />;
}

/** "1:05" */
const sayClock = (ms: number): string => {
  const seconds = Math.floor(ms / 1000);
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`;
};
