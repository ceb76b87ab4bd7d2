import { useState } from 'react';
import type { ActivityView } from '@jigsaw/contract/release';
import type { SightlinesView } from '@jigsaw/contract/sightlines';
import { WhatWouldChange } from '../foreseen/index.js';
import { Button } from '../look/index.js';
import { useAct } from '../page/index.js';
import { backToWas, ExtendSheet, useChangeReachMutation, useReadActivityQuery } from '../release/index.js';
import type { SightColumn } from './columns.js';
import type { Otherwise } from './otherwise.js';
import { otherwiseOf } from './otherwise.js';

interface CellActsProps {
  readonly view: SightlinesView;
  readonly activityId: string;
  readonly column: SightColumn;
}

/** What can be done about a cell, here and with the way back: more time, or in and out of those who get it. */
export function CellActs({ view, activityId, column }: CellActsProps) {
  const { data: activity } = useReadActivityQuery(activityId);
  const release = activity?.release;
  if (!release || release.state.state === 'withdrawn') return null;
  const { to, mode, outsiders } = release;
  const otherwise = otherwiseOf(view, { to, mode, outsiders }, column.of);
  const { of } = column;
  const meant = of.kind === 'group' ? { groupId: of.groupId } : of.kind === 'person' ? { enrolmentId: of.enrolmentId } : null; // prettier-ignore
  return (
    <>
      {meant && otherwise.isIn && activity.schedule.due !== null && (
        <Extend activity={activity} column={column} meant={meant} />
      )}
      {otherwise.target && <InOrOut activity={activity} name={column.name} otherwise={otherwise} />}
    </>
  );
}

interface ExtendProps {
  readonly activity: ActivityView;
  readonly column: SightColumn;
  readonly meant: NonNullable<Parameters<typeof ExtendSheet>[0]['meant']>;
}
function Extend({ activity, column: { name, number }, meant }: ExtendProps) {
  const [isExtending, setExtending] = useState(false);
  const groups = 'groupId' in meant && number !== null ? [{ ...meant, number, name }] : [];
  return (
    <>
      <Button isSmall onPress={() => setExtending(true)}>
        Extend for {name}…
      </Button>
      {isExtending && (
        <ExtendSheet
          activity={activity}
          groups={groups}
          due={activity.schedule.due}
          meant={meant}
          onClose={() => setExtending(false)}
        />
      )}
    </>
  );
}

interface InOrOutProps {
  readonly activity: ActivityView;
  readonly name: string;
  readonly otherwise: Otherwise;
}
function InOrOut({ activity, name, otherwise: { isIn, target } }: InOrOutProps) {
  const was = activity.release;
  const change = useAct(useChangeReachMutation(), {
    says: (_now, { body }) => {
      const isBack = was !== null && body.to === was.to;
      return isIn !== isBack ? `Withdrawn from ${name}. What was done there stays.` : `Released to ${name}`;
    },
    inverse: backToWas,
  });
  if (!target || !was) return null;
  const body = {
    to: target.to,
    outsiders: target.outsiders,
    was: { to: was.to, outsiders: was.outsiders },
  };
  const act = {
    label: isIn ? `Withdraw from ${name}` : `Release to ${name}`,
    does: () => void change({ activityId: activity.id, body }),
  };
  return (
    <>
      <Button isSmall isDisabled={change.isBusy} onPress={act.does}>
        {act.label}
      </Button>
      <WhatWouldChange isSmall planned={{ act: 'reach', activityId: activity.id, ...body }} act={act} />
    </>
  );
}
