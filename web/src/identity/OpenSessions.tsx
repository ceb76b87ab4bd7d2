import { lazy, Suspense } from 'react';

const OpenSessionsSheet = lazy(async () => ({
  default: (await import('./OpenSessionsSheet.js')).OpenSessionsSheet,
}));

/** Fetched when someone asks for it: no one waits for it with their first page. */
export function OpenSessions({ onClose }: { readonly onClose: () => void }) {
  return (
    <Suspense>
      <OpenSessionsSheet onClose={onClose} />
    </Suspense>
  );
}
