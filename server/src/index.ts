export { createApp } from './app/createApp.js';
export type { App } from './app/createApp.js';
export { DatabaseRefused, migrate, oneAtATime } from './app/database.js';
export { PeopleService } from './identity/index.js';
export { listen, ListenRefused } from './app/listen.js';
export { endWithParent } from './app/parent.js';
export { Clock } from './platform/clock.js';
export { configFrom, SettingRefused } from './platform/config.js';
export type { Config } from './platform/config.js';
