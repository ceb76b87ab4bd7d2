import { useEffect, useLayoutEffect, useRef, useState } from 'react';
import { v7 as uuid } from 'uuid';
import { VisitId } from '@jigsaw/contract/common';
import { absentAfterMs } from '@jigsaw/core/call';
import { apiAddress } from '../api/index.js';
import { useAct } from '../page/index.js';
import { useLeaveCallMutation, useStayInMutation, useStepInMutation } from './callApi.js';

/** This page's own visit to a call: it lasts as long as the page is open, and is over when it is closed or left. */
export function useVisit(copyId: string) {
  const [visitId, setVisitId] = useState<string | null>(null);
  const [wasAway, setWasAway] = useState(false);
  const step = useAct(useStepInMutation(), { isRefusalShown: true });
  const stay = useAct(useStayInMutation(), { isRefusalShown: true });
  const leave = useAct(useLeaveCallMutation(), { isRefusalShown: true });
  const open = useRef<string | null>(null);
  // A visit outlives renderings; what it says goes through the newest of them.
  const says = useRef({ stay, leave });
  useLayoutEffect(() => {
    says.current = { stay, leave };
  });

  useEffect(() => {
    if (visitId === null) return;
    open.current = visitId;
    const latest = says;
    const timer = setInterval(() => {
      void (async () => {
        const answer = await latest.current.stay({ copyId, visitId });
        if (answer && !answer.isIn) {
          open.current = null;
          setVisitId(null);
          setWasAway(true);
        }
      })();
    }, absentAfterMs / 3);
    // A page that is closed has no time for an answer.
    const goes = () =>
      void fetch(apiAddress(`copies/${copyId}/call/visits/${visitId}`), {
        method: 'DELETE',
        keepalive: true,
      });
    window.addEventListener('pagehide', goes);
    return () => {
      clearInterval(timer);
      window.removeEventListener('pagehide', goes);
      if (open.current === visitId) void latest.current.leave({ copyId, visitId });
    };
  }, [copyId, visitId]);

  return {
    isIn: visitId !== null,
    /** The line or this machine slept for so long that others saw this person leave. */
    wasAway,
    error: step.error,
    isBusy: step.isBusy,
    stepIn: async () => {
      const id = VisitId.parse(uuid());
      setWasAway(false);
      if (await step({ copyId, body: { id } })) setVisitId(id);
    },
    leave: () => setVisitId(null),
  };
}
