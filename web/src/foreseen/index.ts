export { WhatChanges, WhatWouldChange } from './WhatChanges.js';
