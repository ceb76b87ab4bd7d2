export { useReadRosterQuery } from './rosterApi.js';
