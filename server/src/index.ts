export { createApp } from './app.js';
export type { App } from './app.js';
export { DatabaseRefused, migrate } from './database.js';
export { PeopleService } from './identity/index.js';
export { listen, ListenRefused } from './listen.js';
export { Clock } from './platform/clock.js';
export { configFrom, SettingRefused } from './platform/config.js';
export type { Config } from './platform/config.js';
