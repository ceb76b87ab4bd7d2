import type { ActivityView } from '@jigsaw/contract/release';
import { aBoard, aReach, courseId, id } from './data.js';
import { inCourse, showPage } from './showPage.js';

export const activityId = id<'activity'>('report');
export const setId = id<'group-set'>('benches');
export const set = { ...aBoard({}).set, id: setId, capacity: 4, unplaced: 1 };
export const reach = aReach();
export const composer = (activity: ActivityView, more = {}) =>
  showPage(inCourse(`release/${activityId}`), {
    [`GET activities/${activityId}`]: activity,
    [`GET courses/${courseId}/sets`]: { sets: [set], archived: [], students: 3 },
    [`POST activities/${activityId}/reach`]: reach,
    ...more,
  });

/** Asking who it would reach changes nothing. */
export const acts = <Write extends { readonly path: string; readonly method: string }>(
  writes: readonly Write[],
) => writes.filter((write) => !(write.method === 'POST' && /\/(reach|marks-foreseen)$/.test(write.path)));
