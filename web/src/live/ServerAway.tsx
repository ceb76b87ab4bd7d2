import { useEffect } from 'react';
import { useDispatch, useSelector } from 'react-redux';
import { styled } from 'styled-components';
import { api, isAway, tagTypes } from '../api/index.js';
import type { RootState } from '../api/index.js';

const Strip = styled.p`
  position: fixed;
  left: 50%;
  bottom: 12px;
  transform: translateX(-50%);
  z-index: var(--z-notice);
  padding: 8px 14px;
  border: 1px solid var(--attn-line);
  border-radius: var(--r-2);
  background: var(--attn-tint);
  color: var(--attn-ink);
  font: var(--t-13);
  box-shadow: var(--lift);
`;
const againMs = 4_000;

/** Whether something that is shown was asked for again and the server did not answer. */
const isOld = (root: RootState): boolean =>
  Object.values(root.api.queries).some(
    (query) => query?.error !== undefined && query.data !== undefined && isAway(query.error),
  );

/** While the server is away pages show what they had, say so, and ask again by themselves. */
export function ServerAway() {
  const isShownOld = useSelector(isOld);
  const dispatch = useDispatch();
  useEffect(() => {
    if (!isShownOld) return;
    const timer = setInterval(() => dispatch(api.util.invalidateTags([...tagTypes])), againMs);
    return () => clearInterval(timer);
  }, [isShownOld, dispatch]);
  return isShownOld ? (
    <Strip role="status">
      The server is not responding. You see the last known version. It reconnects by itself, and what you type
      is kept.
    </Strip>
  ) : null;
}
