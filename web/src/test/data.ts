/** Made-up people, groups and work for tests of pages, one file a part of the job. */
export * from './people.js';
export * from './releases.js';
export * from './work.js';
export * from './markings.js';
