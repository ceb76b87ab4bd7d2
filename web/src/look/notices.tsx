import { createSlice, nanoid } from '@reduxjs/toolkit';
import type { PayloadAction } from '@reduxjs/toolkit';
import { useEffect } from 'react';
import { useDispatch, useSelector } from 'react-redux';
import { styled } from 'styled-components';
import { useFontsOf } from './PersonName.js';
import { Button } from './controls.js';

/** What has just happened, with the way back where there is one. */
export interface Notice {
  readonly id: string;
  readonly text: string;
  readonly actionLabel?: string;
}

// Functions do not belong in the store; they wait here under the notice's id until it is gone.
const actionById = new Map<string, () => void>();

const slice = createSlice({
  name: 'notices',
  initialState: null as Notice | null,
  reducers: {
    shown: (_state, { payload }: PayloadAction<Notice>) => payload,
    gone: (state, { payload }: PayloadAction<string>) => (state?.id === payload ? null : state),
  },
});

export const noticesReducer = slice.reducer;
interface NoticeState {
  readonly notices: Notice | null;
}

export function useNotice() {
  const dispatch = useDispatch();
  return (text: string, action?: { label: string; do: () => void }) => {
    const id = nanoid();
    actionById.clear();
    if (action) actionById.set(id, action.do);
    dispatch(slice.actions.shown({ id, text, ...(action ? { actionLabel: action.label } : {}) }));
  };
}

const Place = styled.div`
  position: fixed;
  left: var(--s-4);
  bottom: 44px;
  z-index: var(--z-notice);
  max-width: min(640px, calc(100vw - 32px));
`;
const Box = styled.div`
  display: flex;
  align-items: center;
  gap: 12px;
  min-height: 40px;
  padding: 0 6px 0 14px;
  background: var(--ink);
  color: var(--on-ink);
  border-radius: var(--r-2);
  box-shadow: var(--lift);
  button {
    color: inherit;
    text-decoration: underline;
    text-underline-offset: 3px;
  }
  button:hover {
    background: transparent;
  }
  button[data-focus-visible] {
    outline-color: var(--on-ink);
  }
`;

const shownMs = 6000;

export function Notices() {
  const notice = useSelector((state: NoticeState) => state.notices);
  const dispatch = useDispatch();
  useEffect(() => {
    if (!notice) return;
    const timer = setTimeout(
      () => dispatch(slice.actions.gone(notice.id)),
      notice.actionLabel ? shownMs * 2 : shownMs,
    );
    return () => clearTimeout(timer);
  }, [notice, dispatch]);
  useFontsOf(notice?.text ?? '');
  return (
    <Place role="status" aria-live="polite">
      {notice && (
        <Box>
          <span>{notice.text}</span>
          {notice.actionLabel && (
            <Button
              kind="quiet"
              onPress={() => {
                actionById.get(notice.id)?.();
                dispatch(slice.actions.gone(notice.id));
              }}
            >
              {notice.actionLabel}
            </Button>
          )}
        </Box>
      )}
    </Place>
  );
}
