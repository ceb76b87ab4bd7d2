import { callKind } from '../call/index.js';
import { eventKind } from '../calendar/index.js';
import { discussionKind } from '../discussion/index.js';
import { assignmentKind, folderKind } from '../handin/index.js';
import { noticeKind } from '../notice/index.js';
import { resourceKind } from '../resource/index.js';
import { questionnaireKind } from '../questionnaire/index.js';
import { registerKind } from '../kinds/index.js';
import { wikiKind } from '../wiki/index.js';

registerKind(assignmentKind);
registerKind(discussionKind);
registerKind(wikiKind);
registerKind(folderKind);
registerKind(noticeKind);
registerKind(eventKind);
registerKind(resourceKind);
registerKind(callKind);
registerKind(questionnaireKind);
