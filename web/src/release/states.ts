export const stateWords = {
  draft: 'Draft',
  scheduled: 'Scheduled',
  live: 'Live',
  closed: 'Closed',
  withdrawn: 'Withdrawn',
} as const;
export const stateLook = {
  draft: 'dash',
  scheduled: 'plain',
  live: 'solid',
  closed: 'plain',
  withdrawn: 'dash',
} as const;
