export { DiscussionModule } from './discussion.module.js';
export { PostRow } from './discussion.rows.js';
export { postsSql, Talks } from './talks.js';
