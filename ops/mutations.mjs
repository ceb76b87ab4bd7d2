/** Small sabotages, each of which some test has to notice: a file, what stands there, what is put in its place, and the tests that are to fail
 * (a pattern of their paths). Grouped by what they would cost someone. */

const core = (file, from, to, tests) => ({ file: `core/src/${file}`, from, to, project: 'core', tests });
const server = (file, from, to, tests) => ({
  file: `server/src/${file}`,
  from,
  to,
  project: 'server',
  tests,
});
const web = (file, from, to, tests) => ({ file: `web/src/${file}`, from, to, project: 'web', tests });

const visibility = [
  server('identity/sittingIn.ts', "if (isRead || (", 'if (request.method || (', 'app/sitIn'), // prettier-ignore
  server('course/viewers.ts', 'if (person.sitsIn && person.sitsIn.courseId !== courseId) return null;', '', 'app/sitIn'), // prettier-ignore
  server('identity/session.guard.ts', 'if (!isTold && !isOfACourse(request))', 'if (false)', 'app/sitIn'),
  server('course/sitIn.ts', "await this.viewers.staff(person, courseId, 'sit-in');", '', 'app/sitIn'),
  server('course/courses.service.ts', 'person.sitsIn?.courseId ?? null', 'null', 'app/sitIn'),
  server('questionnaire/questionnaire.kind.ts', 'person.sitsIn === null ||', 'true ||', 'app/sitIn'),
  server('call/call.service.ts', ' && !access.person.sitsIn', '', 'app/sitIn'),
  core('rooms/answers.ts', 'upToOf(need) <= answer.upTo && ', '', 'rooms'),
  core('rooms/answers.ts', "answer.said !== 'later' || ", '', 'rooms'),
  core('rooms/needs.ts', 'stops.length > 0 && takes > left', 'takes > left', 'rooms'),
  core('release/hearers.ts', ' && seesWorkOf(viewer, concerns.staffOf)', '', 'release/hearers'),
  server('rooms/stops.service.ts', 'Math.min(Date.parse(upTo), Date.parse(upToOf(need)))', 'Date.parse(upTo)', 'rooms/stops'), // prettier-ignore
  server('rooms/stops.service.ts', 'if (!line) throw problems.notFound();', 'if (!line) return done;', 'rooms/stops'), // prettier-ignore
  server(
    'rooms/entering.ts',
    '!viewer.seesOnlyLed || viewer.leads.includes(groupId)',
    'true',
    'server/src/notes',
  ),
  server('rooms/entering.ts', 'refuseUnless(viewer, act);', '', 'server/src/notes'),
  server('discussion/discussion.kind.ts', String.raw`(?![^\s"'”’»)\]!?])`, '', 'rooms/needs'),
  server('rooms/entering.ts', 'if (!isTheirs) throw problems.notFound();', '', 'rooms/lastWritten'),
  server('rooms/lastWritten.service.ts', ' && isOut(access, now)', '', 'rooms/lastWritten'),
  server('rooms/news.service.ts', '(SELECT * FROM (${sql}) item WHERE ${visible}) i\n         LEFT JOIN "seen" s ON s."subjectId" = i."subjectId" AND s."enrolmentId" = $1\n         JOIN', '(SELECT * FROM (${sql}) item) i\n         LEFT JOIN "seen" s ON s."subjectId" = i."subjectId" AND s."enrolmentId" = $1\n         JOIN', 'rooms/lastWritten'), // prettier-ignore
  web('rooms/NextDue.tsx', ".toSorted((a, b) => (a.due ?? '').localeCompare(b.due ?? ''))", '', 'rooms/pages'), // prettier-ignore
  server('rooms/needs.ts', 'waiting && mayMark', 'waiting', 'rooms/needs'),
  server('rooms/lately.service.ts', 'viewer.seesOnlyLed ?', 'false ?', 'rooms/needs'),
  server('notes/notes.service.ts', 'staffOf: note.groupId,', '', 'server/src/notes'),
  server('notes/notes.service.ts', 'about !== null && !members', 'false && !members', 'server/src/notes'),
  server('notes/notes.service.ts', 'if (note.version !== version)', 'if (false)', 'server/src/notes'),
  server('notes/notes.service.ts', 'if (note.authorId !== viewer.enrolmentId) throw', 'if (false) throw', 'server/src/notes'), // prettier-ignore
  server('notes/notes.service.ts', "if (!mayRemove(viewer, note)) throw", 'if (false) throw', 'server/src/notes'), // prettier-ignore
  core('messages/readsThread.ts', 'if (hasLeft) return false;', '', 'core/src/messages'),
  core(
    'messages/readsThread.ts',
    '!seesOnlyLed || leads.includes(thread.groupId)',
    'true',
    'core/src/messages',
  ),
  core('messages/readsThread.ts', 'thread.isWithStudent &&', '', 'core/src/messages'),
  core('messages/fillIn.ts', "'gi')", "'g')", 'core/src/messages'),
  server('messages/reading.ts', 'seesOnlyLed ? `t."groupId" = ANY($3)` : `t."groupId" IS NOT NULL`', '`t."groupId" IS NOT NULL`', 'server/src/messages'), // prettier-ignore
  server(
    'messages/reading.ts',
    '(${isWithStudent} AND ${sitsInTheirs})',
    '${isWithStudent}',
    'server/src/messages',
  ),
  server('messages/sending.service.ts', 'if (addressed.length === count) return;', 'if (addressed.length > 0) return;', 'server/src/messages'), // prettier-ignore
  server('messages/sending.service.ts', "if (row.by !== viewer.enrolmentId) throw problems.conflict('Send this message again.');", '', 'server/src/messages'), // prettier-ignore
  server(
    'messages/messages.service.ts',
    'if (before) return this.replied(manager, at, id);',
    '',
    'server/src/messages',
  ),
  server(
    'messages/messages.service.ts',
    'message.removedBy ?? message.authorId',
    'message.authorId',
    'server/src/messages',
  ),
  server('messages/messageMail.ts', 'to.delete(enrolmentId);', '', 'server/src/messages'),
  web('messages/ThreadPanel.tsx', 'clearTimeout(timer);\n      if (entry', 'if (entry', 'web/src/messages'),
  server(
    'audit/audit.service.ts',
    'if (kind === null || (isInCopy(event.type) && !subject?.copyId)) return [];',
    'if (kind === null) return [];',
    'server/src/audit',
  ),
  server(
    'audit/audit.service.ts',
    'Date.parse(last.at) - Date.parse(line.at) <= togetherMs',
    'true',
    'server/src/audit',
  ),
  server('platform/events.ts', `AND b."courseId" = $1))`, '))', 'server/src/audit'),
  core('shelf/shelf.ts', ".normalize('NFC').toLowerCase()", '', 'core/src/shelf'),
  core('shelf/shelf.ts', 'bytes + given.sizeBytes > mostBytes', 'bytes > mostBytes', 'core/src/shelf'),
  server('shelf/shelf.service.ts', 'if (practiceRoundOf(person) !== null) throw problems.notFound();', '', 'server/src/shelf'), // prettier-ignore
  server('shelf/shelf.service.ts', 'if (!file || file.removedAt) throw problems.notFound();', 'if (!file) throw problems.notFound();', 'server/src/shelf'), // prettier-ignore
  server('shelf/shelf.service.ts', 'if (file.versions !== newest)', 'if (false)', 'server/src/shelf'),
  server('shelf/shelf.service.ts', 'LEAST($3::timestamptz, $4)', '$3::timestamptz', 'server/src/shelf'),
  server('shelf/shelfFacts.ts', 'if (removedAt === null || removedBy === null || !isOwnOrManaged(viewer, row)) return [];', 'if (removedAt === null || removedBy === null) return [];', 'server/src/shelf'), // prettier-ignore
  server('shelf/shelf.service.ts', 'staffOf: groupId,', '', 'server/src/shelf'),
  web('shelf/Shelf.tsx', 'clearTimeout(timer);\n      if (entry', 'if (entry', 'web/src/shelf'),
  web('rounds/RoundStrip.tsx', 'if (await answer(stop, said)) go();', 'void answer(stop, said); go();', 'web/src/rounds'), // prettier-ignore
  web('rounds/round.ts', "at >= from && state === 'open'", 'at >= from', 'web/src/rounds'),
  web('notes/Notes.tsx', 'hasSeen ? note.version : begunAt', 'note.version', 'web/src/notes'),
  web('discussion/Threads.tsx', 'isLast && wanted !== null && !isHere', 'false', 'discussion/pages'),
  server('live/courseStreams.ts', 'this.endSitIns();', '', 'app/sitIn'),
  server('checks/checks.service.ts', 'if (check.dismissed)', 'if (false)', 'checks'),
  server('release/release.service.ts', 'if (!isEqual(now, was))', 'if (false)', 'release/audience'),
  web('page/stored.ts', "if (where !== 'reader' && sitsIn())", 'if (false)', 'page/stored'),
  web('marks/useQueue.ts', 'isIn(row) || placeOf(row) === here', 'isIn(row)', 'marks/queue'),
  web('marks/ManyMarks.tsx', 'isShown.has(placeOf(each)),', 'true,', 'marks/queue'),
  server(
    'release/many.service.ts',
    "await this.viewers.staff(person, from, 'release');",
    '',
    'release/fromCourse',
  ),
  server(
    'release/content.ts',
    'isElsewhere ? briefElsewhere(content.brief) : content.brief',
    'content.brief',
    'release/fromCourse',
  ),
  server('outline/outline.service.ts', 'const { headings, loose } = seenIn(outline, seen);', 'const { headings, loose } = outline;', 'server/src/outline'), // prettier-ignore
  server('outline/outline.service.ts', '...hearersOfRelease(releaseId)', '...hearersOfRelease(releaseId), isForAll: true', 'server/src/outline'), // prettier-ignore
  server('outline/outline.service.ts', 'await lockCourse(work.manager, courseId);', '', 'server/src/outline'),
  server('outline/outline.service.ts', 'heading.version !== version', 'false', 'server/src/outline'),
  server(
    'rooms/rooms.service.ts',
    'if (found.length === 0) throw problems.notFound();',
    '',
    'server/src/outline',
  ),
  web('outline/outlineApi.ts', 'return shown.undo();', 'return;', 'web/src/outline'),
  web('outline/outlineApi.ts', "(error ? ['Outline'] : [])", '[]', 'web/src/outline'),
  server('release/collisions.service.ts', '.filter(isReleased)', '', 'release/collisions'),
  server(
    'release/collisions.service.ts',
    'datesFor(schedule, ofGroup, own)',
    'datesFor(schedule, ofGroup, null)',
    'release/collisions',
  ),
  server(
    'release/collisions.service.ts',
    "await this.viewers.staff(person, courseId, 'release');",
    "await this.viewers.staff(person, courseId, 'read-course');",
    'release/collisions',
  ),
  server(
    'release/moments.ts',
    'at > release.toldUntil.getTime() && at <= now.getTime()',
    'at <= now.getTime()',
    'release/moments',
  ),
  server('release/moments.ts', "lock: { mode: 'pessimistic_write' },", '', 'release/moments'),
  server('release/moments.ts', '{ toldUntil: now }', '{ toldUntil: release.toldUntil }', 'release/moments'),
  server('release/closings.ts', 'at !== not', 'at !== undefined', 'release/moments'),
  server(
    'release/closings.ts',
    'closing(groupId, extensionOf(own))',
    'closing(null, extensionOf(own))',
    'release/moments',
  ),
  server(
    'release/release.service.ts',
    '...stateColumns(from),\n      toldUntil: now,',
    '...stateColumns(from),',
    'release/moments',
  ),
  server(
    'questionnaire/questionnaire.service.ts',
    'sheets: isHidden ? [] : byName(shown),',
    'sheets: byName(shown),',
    'questionnaire/questionnaire',
  ),
  server(
    'questionnaire/questionnaire.service.ts',
    '{ ...anonymousSheet, id',
    '{ ...anonymousSheet, enrolmentId, id',
    'questionnaire/questionnaire',
  ),
  server(
    'questionnaire/questionnaire.service.ts',
    'actorId: isAnonymous ? null : person.id,',
    'actorId: person.id,',
    'questionnaire/questionnaire',
  ),
  server(
    'questionnaire/questionnaire.service.ts',
    'waiting: isAnonymous ? null : members',
    'waiting: members',
    'questionnaire/questionnaire',
  ),
  server(
    'questionnaire/questionnaire.service.ts',
    "viewer.role) === 'all',",
    "viewer.role) !== 'none',",
    'questionnaire/questionnaire',
  ),
  server(
    'questionnaire/questionnaire.service.ts',
    'if (isAnonymous !== isPromised)',
    'if (isAnonymous === null)',
    'questionnaire/questionnaire',
  ),
  server(
    'questionnaire/questionnaire.service.ts',
    'settingsOf(await holdActivity(manager, access))',
    'settingsOf(access.activity)',
    'questionnaire/questionnaire',
  ),
  server(
    'questionnaire/questionnaire.kind.ts',
    'return why !== null && (await haveAnswers(manager, copyIds)) ? why : null;',
    'return why !== null && copyIds.length === -1 ? why : null;',
    'questionnaire/questionnaire',
  ),
  server('call/call.service.ts', '(isMember.has(visit.enrolmentId) ||', '(visit ||', 'call/call'),
  server(
    'call/call.service.ts',
    "decision.part === 'member' &&",
    "decision.part !== 'reader' &&",
    'call/call',
  ),
  server(
    'calendar/calendar.service.ts',
    'if (courses.length === 0) throw problems.notFound();',
    '',
    'calendar/calendar',
  ),
  server(
    'calendar/addresses.service.ts',
    'delete(CalendarAddressRow, { id, personId: person.id })',
    'delete(CalendarAddressRow, { id })',
    'calendar/calendar',
  ),
  server('calendar/calendar.service.ts', 'isOut(access, now) && access', 'access', 'calendar/calendar'),
  server(
    'release/attached.service.ts',
    'if (!activity.files.some((file) => file.id === fileId)) throw problems.notFound();',
    '',
    'release/attached',
  ),
  server(
    'release/knownFiles.ts',
    'return { ...attached(file), isPerGroup };',
    'return { ...attached(file), ...wanted[0] };',
    'release/attached',
  ),
  core('release/decide.ts', 'viewer.courseId !== release.courseId', 'false', 'core/src/release'),
  core(
    'release/decide.ts',
    'if (viewer.hasLeft) return hidden',
    'if (false) return hidden',
    'core/src/release',
  ),
  core(
    'release/decide.ts',
    "return release.state.state === 'draft'\n        ? hidden",
    "return release.state.state === 'closed'\n        ? hidden",
    'core/src/release',
  ),
  core(
    'release/decide.ts',
    'viewer.seesOnlyLed && groupId !== null && !isLed',
    'viewer.seesOnlyLed && groupId !== null && isLed',
    'core/src/release',
  ),
  core(
    'release/decide.ts',
    'opens !== null && now < opens',
    'opens !== null && now <= opens',
    'core/src/release',
  ),
  core(
    'release/decide.ts',
    'release.audience.exclude.includes(viewer.enrolmentId))',
    'false)',
    'core/src/release',
  ),
  core('release/decide.ts', 'if (!reachesGroup(release.audience, copy))', 'if (false)', 'core/src/release'),
  core('release/decide.ts', "access: isClosed ? 'read-only' : 'open'", "access: 'open'", 'core/src/release'),
  core(
    'release/decide.ts',
    "if (release.outsiders === 'listed')",
    "if (release.outsiders !== 'listed')",
    'core/src/release',
  ),
  core('release/stateAt.ts', 'state.goesLiveAt > now', 'state.goesLiveAt >= now', 'core/src/release'),
  core(
    'release/stateAt.ts',
    'closes !== null && closes <= now',
    'closes !== null && closes < now',
    'core/src/release',
  ),
  core('release/schedule.ts', 'Math.max(said, due)', 'Math.min(said, due)', 'core/src/release'),
  core('release/schedule.ts', 'each.due > latest.due', 'each.due < latest.due', 'core/src/release'),
  core(
    'release/schedule.ts',
    'b !== null && (a === null || a > b)',
    'b !== null && a !== null && a > b',
    'core/src/release',
  ),
  core('release/decide.ts', 'release.ownTime.get(viewer.enrolmentId) ?? null', 'null', 'core/src/release'),
  core(
    'release/brief.ts',
    'if (copyOf !== null && !named.includes(copyOf)) return [];',
    '',
    'core/src/release/brief',
  ),
  core(
    'release/brief.ts',
    'groups.some((id) => named.includes(id)) ? (content ?? []) : []',
    'content ?? []',
    'core/src/release/brief',
  ),
  core('release/moved.ts', 'shown - offsetAt(guess, timeZone)', 'guess', 'core/src/release/moved'),
  server(
    'rooms/copyHeads.service.ts',
    "viewer.role === 'student' ? viewer.groups.map(({ groupId }) => groupId) : null",
    'null',
    'server/src/(rooms|release)',
  ),
  server(
    'release/extensions.service.ts',
    'ownerId: to.enrolmentId',
    'ownerId: null',
    'server/src/(live/overheard|release/student)',
  ),
  server(
    'release/extensions.service.ts',
    'if (isStudent.length === 0) throw problems.notFound();',
    '',
    'server/src/release/student',
  ),
  server(
    'release/activities.service.ts',
    "viewer.role === 'observer'\n          ? []\n          :",
    '',
    'server/src/release/student',
  ),
  server(
    'release/gate.ts',
    'workedOut(what, viewer.enrolmentId)',
    'workedOut(what, null)',
    'server/src/release/student',
  ),
  server(
    'release/many.service.ts',
    'const changed = found.find((row) => row.version !== versionOf.get(row.id));',
    'const changed = found.find(() => false);',
    'server/src/release/many',
  ),
  server('release/many.service.ts', 'if (stateAt <= now)', 'if (false)', 'server/src/release/many'),
  server(
    'release/release.service.ts',
    'facts: { activityId: activity.id, from },',
    'facts: { activityId: activity.id },',
    'server/src/release/many',
  ),
  core(
    'release/schedule.ts',
    'sure(given[index - 1]) <= at',
    'sure(given[index - 1]) < at',
    'core/src/release',
  ),
  core(
    'release/kindRules.ts',
    "access === 'open' && part !== 'reader' &&",
    "part !== 'reader' &&",
    'core/src/(release|wiki|discussion|handin)',
  ),
  core(
    'course/roles.ts',
    "assistant: ['read-course', 'place', 'mark', 'write-to-people', 'keep-notes']",
    "assistant: ['read-course', 'place', 'mark', 'release', 'write-to-people', 'keep-notes']",
    'core/src/course',
  ),
  core(
    'course/roles.ts',
    "observer: ['read-course']",
    "observer: ['read-course', 'mark']",
    'core/src/course',
  ),
  server(
    'course/viewers.ts',
    'if (!viewer || viewer.hasLeft) throw',
    'if (!viewer) throw',
    'server/src/(roster/roles|course|live|roster/rosterChanges)',
  ),
  server(
    'course/viewers.ts',
    "if (!may(role, 'read-course')) throw problems.notFound();",
    '',
    'server/src/(release/privacy|roster/roles)',
  ),
  server(
    'course/viewers.ts',
    'if (!may(role, act)) throw problems.notYours();',
    '',
    'server/src/(roster/roles|release/privacy)',
  ),
  server(
    'handin/handin.service.ts',
    "if (decision.part === 'member') throw problems.closed();",
    '',
    'server/src/handin',
  ),
  server(
    'release/gate.ts',
    "if (viewer === null || !atLeast(decision.access, 'read-only')) return decision;",
    'if (viewer === null) return decision as never;',
    'server/src/(release|rooms)',
  ),
  server(
    'release/release.service.ts',
    'await setOfCourse(manager, setId, activity.courseId);',
    '',
    'server/src/release',
  ),
  server(
    'release/release.service.ts',
    'if (!(await areGroupsOfSet(manager, groupIds, setId))) throw problems.notFound();',
    '',
    'server/src/release',
  ),
  server(
    'release/extensions.service.ts',
    'await setOfCourse(manager, tag.setId, courseId);',
    '',
    'server/src/release',
  ),
  server(
    'release/activities.service.ts',
    'shown.filter(isOut).map(',
    'shown.map(',
    'server/src/(release|roster/roles)',
  ),
  server(
    'handin/work.ts',
    "const isOnlyOwn = rules.by === 'student' && decision.part !== 'staff' && viewer.role === 'student';",
    "const isOnlyOwn = rules.by === 'student' && decision.part !== 'staff' && viewer.role === 'student' && decision.access === 'open';",
    'server/src/handin',
  ),
  server(
    'handin/isThereFor.ts',
    "if (rules.by === 'student' && viewer.role === 'student') return false;",
    '',
    'server/src/(handin|release/privacy)',
  ),
  server('handin/isThereFor.ts', 'held.deletedAt === null ||', 'true ||', 'server/src/handin'),
  server(
    'rooms/news.service.ts',
    '("ownerId" IS NULL OR "ownerId" = $1 OR $2::boolean)',
    '(true OR $2::boolean)',
    'server/src/(rooms|handin)',
  ),
  server(
    'placing/board.service.ts',
    'viewer.seesOnlyLed &&\n      place.moves',
    'false &&\n      place.moves',
    'server/src/sets/leads',
  ),
  server(
    'placing/board.service.ts',
    '!seesOnlyLed || leads.includes(groupId)',
    'true',
    'server/src/sets/leads',
  ),
  server(
    'placing/signUp.service.ts',
    "viewer.hasLeft || viewer.role !== 'student' || !isOffered(set)",
    'viewer.hasLeft || !isOffered(set)',
    'server/src/placing/signUp',
  ),
  server(
    'placing/signUp.service.ts',
    'const areNamesShown = set.signUp.showsNames || group.id === yours;',
    'const areNamesShown = true;',
    'server/src/placing/signUp',
  ),
];

const truthOfMarks = [
  core('marks/personMark.ts', 'Exact.max(0, exact.minus(late))', 'exact.minus(late)', 'core/src/marks'),
  core('marks/personMark.ts', 'Exact.min(Exact.max(value, 0), max)', 'Exact.max(value, 0)', 'core/src/marks'),
  core('marks/personMark.ts', 'Decimal.ROUND_HALF_UP', 'Decimal.ROUND_HALF_EVEN', 'core/src/marks'),
  core(
    'marks/personMark.ts',
    "if (adjustment?.kind === 'excused')\n    return",
    "if (adjustment?.kind === 'adjusted')\n    return",
    'core/src/marks',
  ),
  core(
    'marks/rubric.ts',
    "if (picked === null || most === '0') return null;",
    "if (most === '0') return null;\n    if (picked === null) continue;",
    'core/src/marks',
  ),
  core(
    'marks/rubric.ts',
    'new Decimal(level.points).gte(points)',
    'new Decimal(level.points).gt(points)',
    'core/src/marks',
  ),
  core(
    'marks/sheet.ts',
    "changesSince(sheet).length === 0 ? 'released' : 'changed'",
    "'released'",
    'core/src/marks',
  ),
  core('marks/sheet.ts', 'latestAt > workAt', 'latestAt >= workAt', 'core/src/marks'),
  core('marks/sheet.ts', "kind === undefined || kind === 'adjusted'", 'kind === undefined', 'core/src/marks'),
  core(
    'marks/sheet.ts',
    'new Decimal(mark).gt(sheet.points)',
    'new Decimal(mark).gte(sheet.points)',
    'core/src/marks',
  ),
  core(
    'marks/sheet.ts',
    'due !== null && due < now && sheet.latestAt === null',
    'due !== null && due <= now && sheet.latestAt === null',
    'core/src/marks',
  ),
  core(
    'handin/lateness.ts',
    'minutes <= policy.graceMinutes',
    'minutes < policy.graceMinutes',
    'core/src/handin',
  ),
  core(
    'handin/lateness.ts',
    'Math.ceil(minutes / policy.periodMinutes)',
    'Math.floor(minutes / policy.periodMinutes) + 1',
    'core/src/handin',
  ),
  core(
    'handin/lateness.ts',
    'Math.floor((handedInAt - due) / 60_000)',
    'Math.ceil((handedInAt - due) / 60_000)',
    'core/src/handin',
  ),
  core('discussion/requirements.ts', 'post.at <= due', 'post.at < due', 'core/src/discussion'),
  core(
    'discussion/requirements.ts',
    'post.words >= rule.replyWords',
    'post.words > rule.replyWords',
    'core/src/discussion',
  ),
  core(
    'discussion/requirements.ts',
    'Math.min(written, rule.posts) + Math.min(replied, rule.replies)',
    'Math.min(written + replied, asked)',
    'core/src/discussion',
  ),
  server('marks/marking.service.ts', 'await lockCopy(work.manager, copyId);', '', 'server/src/marks'),
  server('marks/marking.service.ts', '(mark?.version ?? 0) !== typed.version', 'false', 'server/src/marks'),
  server(
    'marks/marking.service.ts',
    "await this.refuseUnseen(manager, marking, version, 'release it');",
    '',
    'server/src/marks',
  ),
  server(
    'marks/marking.service.ts',
    "await this.refuseUnseen(manager, marking, version, 'recall it');",
    '',
    'server/src/marks',
  ),
  server('marks/marking.service.ts', 'await refuseIncomplete(manager, marking);', '', 'server/src/marks'),
  server(
    'marks/marking.service.ts',
    'await refuseImpossible(manager, marking, typed);',
    '',
    'server/src/marks',
  ),
  server(
    'marks/marking.service.ts',
    "this.gate.enterAsStaff(person, copyId, 'mark')",
    "this.gate.enterAsStaff(person, copyId, 'read-course')",
    'server/src/(marks|roster/roles)',
  ),
  server(
    'marks/giveMarks.ts',
    'giving = [...given].filter(([id]) => isFirst || differs.has(id))',
    'giving = [...given]',
    'server/src/marks',
  ),
  server('marks/myMarks.service.ts', `AND c."state" <> 'withdrawn' ORDER`, 'ORDER', 'server/src/marks'),
  server(
    'release/activities.service.ts',
    'if (activity.version !== version)',
    'if (false)',
    'server/src/release',
  ),
  server(
    'release/activities.service.ts',
    'view) => ({ ...view, inWork: null })',
    'view) => view',
    'server/src/release',
  ),
  core(
    'marks/given.ts',
    'from.mark !== to.mark || from.points !== to.points',
    'from.mark !== to.mark',
    '(core|server)/src/marks',
  ),
  core(
    'marks/sheet.ts',
    'groupMark: exactMarkFrom(sheet),\n    override',
    'groupMark: unitMark(sheet),\n    override',
    'core/src/marks',
  ),
  server('marks/markStore.ts', '"seenAt" = NULL', '"seenAt" = "released_mark"."seenAt"', 'server/src/marks'),
  server(
    'marks/markStore.ts',
    'gone AS (DELETE FROM "released_mark" r WHERE r."copyId" = $1 AND ($2::uuid IS NULL OR r."enrolmentId" = $2)',
    'gone AS (DELETE FROM "released_mark" r WHERE false AND r."copyId" = $1 AND ($2::uuid IS NULL OR r."enrolmentId" = $2)',
    'server/src/marks',
  ),
  server(
    'marks/gradebook.service.ts',
    "({ state }) => state === 'released' || state === 'excused',",
    "({ state }) => state === 'released' || state === 'excused' || state === 'drafted',",
    'server/src/marks',
  ),
  core('marks/sheet.ts', 'isBegun(copy) || !keptFrom.has(copy.setId)', 'true', 'core/src/marks'),
  server(
    'marks/gradebook.service.ts',
    'group: told.length > 1 ?',
    'group: false ?',
    'server/src/(marks|release)/(walk|audience)',
  ),
  server(
    'handin/credits.ts',
    'later."attempt" > h."attempt"',
    'later."attempt" < h."attempt"',
    'server/src/(placing|sets|handin)',
  ),
  server('handin/handin.service.ts', 'if (attempt !== next)', 'if (false)', 'server/src/handin'),
];

const togetherAtOnce = [
  server(
    'placing/memberships.ts',
    'if (!placed.ok) return false;',
    'if (!placed.ok) return true;',
    'server/src/placing/board',
  ),
  server(
    'placing/board.service.ts',
    'const set = await lockSet(manager, setId);',
    'const set = await setOf(manager, setId);',
    'server/src/placing/board',
  ),
  server(
    'placing/signUp.service.ts',
    'const set = await lockSet(work.manager, setId);',
    'const set = await setOf(work.manager, setId);',
    'server/src/placing/signUp',
  ),
  server('placing/board.service.ts', 'if (set.archivedAt)', 'if (false)', 'server/src/(placing|sets)'),
  server('roster/rosterChanges.service.ts', 'await lockCourse(manager, courseId);', '', 'server/src/roster'),
  server(
    'release/release.service.ts',
    'if (locked.version !== request.version)',
    'if (false)',
    'server/src/release',
  ),
  server('sets/sets.service.ts', 'if (before.version !== version) {', 'if (false) {', 'server/src/sets'),
  server(
    'sets/groups.service.ts',
    '{ id: groupId, version: edit.version }',
    '{ id: groupId }',
    'server/src/(sets|placing)',
  ),
  server('wiki/wiki.service.ts', 'if (page.revision !== basedOn)', 'if (false)', 'server/src/wiki'),
  server(
    'discussion/discussion.service.ts',
    'if (post.version !== version)',
    'if (false)',
    'server/src/discussion',
  ),
  server('handin/handin.service.ts', '(known?.version ?? 0) !== version', 'false', 'server/src/handin'),
  server(
    'handin/handin.service.ts',
    'if (raw.length === 0) throw problems.staleWrite',
    'if (false) throw problems.staleWrite',
    'server/src/handin',
  ),
  core(
    'placing/placement.ts',
    'isExclusive || seats.length === 0',
    'isExclusive || seats.length >= 0',
    'core/src/placing',
  ),
  core(
    'placing/placement.ts',
    'sure(leaders.get(sure(to))) > 1',
    'sure(leaders.get(sure(to))) > 2',
    'core/src/placing',
  ),
  core('placing/signUp.ts', 'to.members >= to.capacity', 'to.members > to.capacity', 'core/src/placing'),
  core(
    'placing/signUp.ts',
    'closes !== null && now >= closes',
    'closes !== null && now > closes',
    'core/src/placing',
  ),
  core(
    'placing/dealOut.ts',
    'group.members < group.capacity',
    'group.members <= group.capacity',
    'core/src/placing',
  ),
];

const doors = [
  server('identity/people.service.ts', 'link.expiresAt <= this.clock.now()', 'false', 'waysIn'),
  server(
    'identity/people.service.ts',
    'await this.goodLink(manager, token);\n      if (!isMailed',
    'if (!isMailed',
    'waysIn',
  ),
  server('identity/session.service.ts', 'AND session."expiresAt" > :now', '', 'server/src/identity'),
  server('identity/tries.ts', 'found.byWho >= mostByWho', 'found.byWho > mostByWho', 'server/src/identity'),
  server('identity/tries.ts', 'found.byClient >= mostByClient', 'false', 'server/src/identity'),
  server(
    'identity/tries.ts',
    'await this.count(trier);\n      const result = await check();',
    'const result = await check();\n      await this.count(trier);',
    'server/src/identity',
  ),
  server(
    'identity/session.service.ts',
    'device !== null && device.personId === person?.id',
    'device !== null',
    'server/src/identity',
  ),
  server(
    'identity/session.service.ts',
    'if (!isOffered) throw problems.notFound();',
    '',
    'server/src/identity',
  ),
  server(
    'files/files.service.ts',
    'if (sizeBytes > mostBytes) throw tooLarge(mostBytes);',
    '',
    'server/src/handin',
  ),
  server(
    'files/files.service.ts',
    'announcedBytes !== null && announcedBytes > largestFileBytes',
    'false',
    'server/src/handin',
  ),
  server('app/createApp.ts', 'if (isOther) sendProblem', 'if (false) sendProblem', 'server/src/identity'),
  server('app/createApp.ts', 'origin !== ownOrigin && ', '', 'server/src/identity'),
  core(
    'handin/fileRules.ts',
    'sizeBytes > rules.largestMb * 1024 * 1024',
    'sizeBytes >= rules.largestMb * 1024 * 1024',
    'core/src/handin',
  ),
  core('handin/fileRules.ts', 'already >= rules.mostFiles', 'already > rules.mostFiles', 'core/src/handin'),
  core(
    'roster/change.ts',
    "return hasInstructor ? null : { code: 'no-instructor' };",
    'return null;',
    'core/src/roster',
  ),
  core(
    'files/formula.ts',
    "/^'*[=+\\-@\\t\\r＝＋－＠]/",
    "/^'*[=+\\-\\t\\r＝＋－＠]/",
    'core/src/(files|roster)',
  ),
  server(
    'roster/registrar.service.ts',
    'dropped.length <= Math.max(plausibleDrops, listed.size * plausiblePart)',
    'true',
    'server/src/roster/registrar',
  ),
];

const pages = [
  web('page/autosaver.ts', 'this.waiting ??= next;', '', 'web/src/page'),
  web('page/autosaver.ts', 'if (this.running) await this.running;', '', 'web/src/page'),
  web(
    'placing/useBoard.ts',
    "if (!isProblem(error, 'stale-write')) shown.undo();",
    '',
    'web/src/placing/pages',
  ),
  web(
    'placing/useBoard.ts',
    'const shown = dispatch(showPlaced(setId, place));',
    'const shown = { undo: () => undefined };',
    'web/src/placing/pages',
  ),
  web(
    'page/useVersionedDraft.ts',
    'if (!now || now.version <= newest.current || !autosave.isIdle()) return;',
    'return;',
    'web/src/marks/pages',
  ),
  core(
    'release/figures.ts',
    "'suggested-marks': { staff: 'all', observer: 'all', member: 'none', reader: 'none' }",
    "'suggested-marks': { staff: 'all', observer: 'all', member: 'none', reader: 'all' }",
    'core/src/release',
  ),
  core(
    'release/hearers.ts',
    '(ownerId !== null && ownerId !== viewer.enrolmentId)',
    'false',
    'core/src/release',
  ),
  web(
    'placing/seating.ts',
    'if (student.seats.length === 0) sure(next.get(null)).push(student);',
    '',
    'web/src/placing',
  ),
  web('marks/useMarkSheet.ts', 'if (!(await draft.flush())) return;', '', 'web/src/marks'),
];

/** Who could stop, overhear or fill up what others use. */
const others = [
  core('release/hearers.ts', 'if (viewer.hasLeft) return false;', '', 'core/src/release'),
  core('release/hearers.ts', 'isStudent && (isForStaffOnly ||', 'isStudent && (', 'core/src/release'),
  core('release/hearers.ts', "copyIds === null ? 'listed' : 'read-only'", "'listed'", 'core/src/release'),
  server('release/hearers.ts', 'isForStaffOnly: true', 'isForStaffOnly: false', 'server/src/live'),
  server('release/activities.service.ts', "staff: 'mark'", "staff: 'read-course'", 'server/src/live'),
  server('live/courseStreams.ts', 'if (by?.personId === own.personId) own', 'if (by) own', 'server/src/live'),
  server('live/changes.ts', 'for (const listener of this.listeners) listener.gap();', '', 'server/src/live'),
  server('identity/session.service.ts', `SELECT pg_notify('session_ended', "id"::text) FROM ended`, `SELECT 1 FROM ended`, 'server/src/live'),
  server('platform/problem.filter.ts', 'found.status >= 500 && hasCommitted()', 'false', 'server/src/app/app'),
  server('platform/body.ts', 'if (depth > deepest)', 'if (false)', 'server/src/app/fuzz'),
  server('platform/body.ts', 'inflate: false', 'inflate: true', 'server/src/app/fuzz'),
  server('platform/databaseErrors.ts', "code.startsWith('22')", 'false', 'server/src/platform'),
  server('platform/fairQueue.ts', 'this.waiting.delete(owner);', '', 'server/src/platform'),
  core('roster/paste.ts', 'line.length > longestLine ||', '', 'core/src/roster'),
  core('text/words.ts', 'segments.slice(0, -overlap)', 'segments', 'core/src/text'),
]; // prettier-ignore

/** Who comes in, by which link, and to what. */
const waysIn = [
  server('course/viewers.ts', `(e."openedFor" = $2 OR $3)`, '($2::uuid IS NOT NULL OR $3)', 'waysIn'),
  server('course/courses.service.ts', `(e."openedFor" = $1 OR $2)`, '($1::uuid IS NOT NULL OR $2)', 'waysIn'),
  server('identity/people.service.ts', 'await this.sessions.endAll(manager, personId);', '', 'waysIn'),
  server(
    'identity/people.service.ts',
    'if (!sets) await this.sessions.checkPassword(before, before.addressKey, password, from);',
    '',
    'waysIn',
  ),
  server(
    'identity/people.service.ts',
    'await manager.delete(PasswordLinkRow, { personId, enrolmentId });',
    '',
    'waysIn',
  ),
  server('identity/people.service.ts', 'return wasWritten ? null : person;', 'return person;', 'waysIn'),
  server('course/enrolments.ts', '{ id: enrolmentId, personId }', '{ id: enrolmentId }', 'waysIn'),
  server(
    'identity/people.service.ts',
    'if (moved.length > 0) await manager.delete(PasswordLinkRow, { personId: In(moved) });',
    '',
    'waysIn',
  ),
  server('mail/mail.service.ts', 'text.link.isPersonal ? null : text.link.url', 'text.link.url', 'waysIn'),
  server('mail/mailCarrier.ts', `jsonb_set("text", '{link,url}', '""')`, '"text"', 'waysIn'),
];

/** Files in and out, people and groups by name. */
const names = [
  core('roster/headings.ts', "&& !name.includes('@')", '', 'server/src/roster/classFile'),
  core('roster/preview.ts', 'mayBeSame && said.newAddresses.has(row.line)', 'mayBeSame', 'core/src/roster'),
  core('roster/preview.ts', '!addressed.has(sameAddress(holder.entry.email))', 'true', 'core/src/roster'),
  core('roster/preview.ts', '!namedByNumber.has(enrolmentId)', 'true', 'core/src/roster'),
  core('placing/groupFile.ts', 'fold(sure(names.get(group.id)))', 'fold(group.name)', 'core/src/placing'),
  server(
    'marks/markings.ts',
    `c."copyId" = m."copyId" WHERE m."copyId" = ANY($1) AND m."markerId" IS NULL`,
    `c."copyId" = m."copyId" WHERE m."copyId" = ANY($1)`,
    'marks/given',
  ),
  server('release/members.ts', 'own.filter((id) => !leftOut.has(id))', 'own', 'release/audience'),
  server(
    'release/release.service.ts',
    'if (!(await areEnrolled(manager, activity.courseId, [...named, ...to.exclude])))\n      throw problems.notFound();',
    '',
    'release/release',
  ),
];

/** What a large course, a stranger or a bad moment must not bring about. */
const underLoad = [
  server('app/dataSource.ts', 'Client: SteadyClient', 'Client: undefined', 'app/brokenLines'),
  {
    file: 'ops/backup.mjs',
    from: "await Promise.race([once(turn.stdout, 'data'), over]);",
    to: '',
    project: 'ops',
    tests: 'ops/jigsaw',
  },
  server('platform/keptByCourse.ts', 'this.courses.get(happening.courseId)?.delete(old.key)', 'undefined', 'keptByCourse'), // prettier-ignore
  server('platform/keptByCourse.ts', 'now >= known.until', 'false', 'keptByCourse'),
  server(
    'platform/unitOfWork.ts',
    'if (courseId) this.happenings.tell({ courseId, type, copies });',
    '',
    'marks/walk',
  ),
  server('release/gate.ts', `OR r."mode" = 'read-along')`, ')', 'release/gate.http'),
  server('release/gate.ts', 'WHERE $3::uuid IS NULL OR "groupId" = $3', '', 'rooms/'),
  server('release/gate.ts', 'LIMIT 1) c', 'LIMIT 0) c', 'release/gate.http'),
  server(
    'platform/steady.ts',
    'Math.floor(workedMs / stepMs) + 1',
    'Math.floor(workedMs / stepMs)',
    'steady',
  ),
  server('platform/atOnce.ts', 'if (next) next();', 'if (next) { own.running -= 1; next(); }', 'atOnce'),
  server('identity/turns.ts', 'if (!signedIn || lasts)', 'if (true)', 'identity/turns'),
  server('roster/classFiles.ts', 'return signal ? { signal } : {};', 'return {};', 'hostileFiles'),
  server('platform/sendExport.ts', `'Cache-Control': 'private, no-store',`, '', 'roster|gradebook'),
  core(
    'marks/sheet.ts',
    'if (!isAlike(sheet, enrolmentId)) return workedOut(sheet, enrolmentId);',
    '',
    'core/src/marks',
  ),
  core('dealing/why.ts', 'groups: problem.groups.map((group) => ({ ...group, isLocked: false })),', 'groups: problem.groups,', 'dealing/why'), // prettier-ignore
];

/** What a page that stays open must not miss, and need not ask for again. */
const keptInStep = [
  server('discussion/discussion.service.ts', 'p."turn" > $2', 'p."turn" > $2 + 1', 'discussion'), // prettier-ignore
  server('discussion/posts.ts', 'await lockCopy(manager, copyId);', '', 'discussion'), // prettier-ignore
  server('app/createApp.ts', `'private, no-store'`, `'private'`, 'app/app.http'),
  server('rooms/staffNews.service.ts', 'stamp: await this.seenSoFar(viewer)', `stamp: ''`, 'rooms/'),
  server('marks/gradebook.service.ts', '.map(once)', '', 'marks/gradebook'),
  web('api/unchanged.ts', "headers: { 'If-None-Match': mark,", 'headers: {', 'api/unchanged'),
  web(
    'api/unchanged.ts',
    'return { data: here.data, meta',
    'return { data: held.get(address)?.data, meta',
    'api/unchanged',
  ),
  web('api/api.ts', 'forgetAnswers();', 'undefined;', 'api/unchanged'),
  web('discussion/takeIn.ts', 'if (!isLatest(thread, result)) return null;', '', 'discussion/takeIn'),
  web('live/useLiveChanges.ts', "type.startsWith('post.') ? ['Post'] : []", '[]', 'live/'),
  web('page/useAim.ts', 'if (aim.current !== own) return;', '', 'useAim|roster|gradebook'),
  web('text/written.ts', 'isAllowedUri: isSafeLink', 'isAllowedUri: () => true', 'text/written'),
  core('course/attributes.ts', 'sum + sure(times.get(value))', 'sum + 1', 'core/src/course'),
];

/** What a teacher's first hour rests on: the class is found in its file, and groups are dealt and found. */
const firstHour = [
  core('roster/findTable.ts', 'worth: people * 100 +', 'worth: -people * 100 +', 'roster/realFiles'),
  core(
    'roster/findTable.ts',
    "if (count <= 3 && totalWords.test(text)) return 'total';",
    '',
    'roster/realFiles',
  ),
  core('roster/findTable.ts', 'const needed = at === 0 ? 1 : 2;', 'const needed = 4;', 'roster/realFiles'),
  core('roster/findTable.ts', 'return !isPersonal ||', 'return true ||', 'roster/realFiles'),
  core(
    'roster/columns.ts',
    "if (setNaming(values, sets)) return take('group', 'guess');",
    '',
    'roster/realFiles',
  ),
  core(
    'roster/columns.ts',
    'return set ? groupHeading(set) : heading;',
    'return heading;',
    'roster/realFiles',
  ),
  server('roster/archive.ts', 'strToU8(padded(xml, paddings))', 'strToU8(xml)', 'roster/archive'),
  server(
    'roster/import.service.ts',
    'withKnownSets(read, request.meanings, known)',
    'read',
    'roster/realFiles',
  ),
  server('roster/previewView.ts', "'bad-address': ['email'],", '', 'roster/realFiles'),
  web(
    'roster/MendForm.tsx',
    'autoFocus={at === (faultyCell ?? 0)}',
    'autoFocus={at === 0}',
    'roster/ImportPreviewPanel',
  ),
  web(
    'roster/columnHabit.ts',
    'known[fold(column.heading)] ?? column.meaning',
    'column.meaning',
    'roster/importPage',
  ),
  web('dealing/sayDeal.ts', 'if (isBest) return met + 1', 'if (!isBest) return met + 1', 'dealing/sayDeal'),
  web('placing/SetTabs.tsx', "set.isExclusive && role === 'instructor'", 'false', 'placing/wholeSet'),
  web('placing/Tray.tsx', 'onEnter={goToFirst}', '', 'placing/pages'),
  core(
    'roster/pasteLine.ts',
    'name: sure(between[isBefore ? at : at + 1]),',
    'name: sure(between[at]),',
    'roster/paste',
  ),
  core('roster/pasteLine.ts', 'earliest = to;', '', 'roster/paste'),
  core('roster/paste.ts', 'open.length <= longestSignature && addresses <= 1', 'true', 'roster/paste'),
  core('roster/paste.ts', 'if (hasAddresses && !isName(words))', 'if (hasAddresses)', 'roster/paste'),
  core(
    'roster/paste.ts',
    'holdsSeveral ? rows.map((row, at) => ({ ...row, line: at + 1 })) : rows',
    'rows',
    'roster/paste',
  ),
  core('roster/preview.ts', 'otherRole?.isTaken ? told : entry.role', 'told', 'core/src/roster/change'),
  core(
    'roster/preview.ts',
    'const told = person.role ?? role;',
    'const told = person.role ?? entry.role;',
    'core/src/roster/change',
  ),
  server(
    'roster/import.service.ts',
    'preview.rows.filter((row) => !leftOut.has(row.line))',
    'preview.rows',
    'roster/rosterChanges',
  ),
  core(
    'dealing/why.ts',
    'else if (outcome.part > byChance.part)',
    'else if (outcome.part > byChance.part + 0.004)',
    'dealing/why',
  ),
  core(
    'dealing/why.ts',
    'else if (outcome.part > byChance.part)',
    'else if (outcome.part > now.part)',
    'dealing/why',
  ),
  core('dealing/why.ts', '[...trials, ...pairs].entries()', 'trials.entries()', 'dealing/why'),
  core('sets/resize.ts', 'open.filter(isEmpty)', 'open', 'sets/resize'),
  server('placing/moves.ts', '"at" < $2', 'true', 'placing/board'),
  server('placing/moves.ts', 'isYours: by === reader', 'isYours: true', 'placing/board'),
  web('placing/useBoard.ts', 'if (locked.length > 0) return sayLocked(locked, done);', '', 'placing/moves'),
  web(
    'placing/useOthersAct.ts',
    '!latest.isOwnChoice && at !== seen.at',
    '!latest.isOwnChoice',
    'placing/moves',
  ),
];

/** Expert tables, sign-up and the settings of a course. */
const tablesAndChoices = [
  core('roster/pasteLine.ts', '|[a-z]\\.)\\s+/,', '|[a-z]\\.)\\s+/i,', 'roster/paste'),
  core('dealing/expertSeats.ts', 'each: weight.move', 'each: 0', 'dealing/expertSeats'),
  core('dealing/expertSeats.ts', 'rising: weight.home,', 'rising: 0,', 'dealing/expertSeats'),
  core('dealing/expertSeats.ts', 'rising: weight.mixed', 'rising: 0', 'dealing/expertSeats'),
  core('dealing/expertSeats.ts', 'isSmall: people.length < topics', 'isSmall: false', 'dealing/expertSeats'),
  core('dealing/flow.ts', 'flow > 0 ?', 'false ?', 'dealing/expertSeats'),
  server('sets/topics.service.ts', 'set.version !== version', 'false', 'sets/topics'),
  server('sets/topics.service.ts', 'number: last + at + 1', 'topic: group.topic', 'sets/topics'),
  server('sets/topics.service.ts', '/^\\d+$/.test(', 'Boolean(', 'sets/topics'),
  server('placing/awaitedPlaces.ts', 'AND NOT g."isLocked"', '', 'placing/awaited'),
  server('placing/awaitedPlaces.ts', "stateOf(set, now) !== 'open'", 'false', 'placing/awaited'),
  server('placing/awaitedPlaces.ts', 'DELETE FROM "awaited_place" w USING', 'SELECT FROM "awaited_place" w,', 'placing/awaited'), // prettier-ignore
  server('placing/signUp.service.ts', 'await this.awaited.await(manager, groupId, enrolmentId, false)', 'await Promise.resolve()', 'placing/awaited'), // prettier-ignore
  server(
    'course/courses.service.ts',
    '{ id: courseId, version },',
    '{ id: courseId },',
    'sets/courseSettings',
  ),
  web('placing/experts.ts', 'home.isSmall ? 0 : home.lacking.length', '0', 'placing/experts'),
  web(
    'sets/CourseNames.tsx',
    'conflict.success ? conflict.data.version : basedOn',
    'basedOn',
    'sets/coursePage',
  ),
  web('sets/StaffSight.tsx', "each.role === 'assistant' && each.leads < groups", "each.role === 'assistant'", 'sets/coursePage'), // prettier-ignore
];

const audiences = [
  core('audiences/resolve.ts', 'for (const [groupId] of found.groups) reached.delete(groupId);', '', 'core/src/audiences'), // prettier-ignore
  core('audiences/resolve.ts', 'if (included.delete(id)) removed.set(id, term)', 'removed.set(id, term)', 'core/src/audiences'), // prettier-ignore
  core('audiences/resolve.ts', 'if (!included.has(id)) included.set(id, term)', 'if (included.size < 1) included.set(id, term)', 'core/src/audiences'), // prettier-ignore
  core('audiences/circle.ts', '[...include, ...exclude].flatMap', '[...include].flatMap', 'core/src/audiences'), // prettier-ignore
  core('audiences/terms.ts', 'wantedDays.size > 0', 'true', 'core/src/audiences'),
  core('release/audience.ts', 'entry.groups.has(group.groupId)', 'true', 'core/src/release'),
  core('release/decide.ts', 'return entry.people.has(viewer.enrolmentId)', 'return true', 'core/src/release'),
  server('release/members.ts', 'namesSaved(access)\n          ?', 'false\n          ?', 'audiences/'),
  server('release/copies.ts', "[{ kind: 'audience' }]", "[{ kind: 'class' }]", 'audiences/'),
  server('release/gate.ts', "viewer?.role !== 'student'", "viewer?.role === 'student'", 'audiences/'),
  server('audiences/audiences.service.ts', 'row.version !== version', 'false', 'audiences/'),
  server('audiences/audiences.service.ts', '...usersOf(id, savedOf(before))', '', 'audiences/'),
  server('audiences/audiences.service.ts', "await setOfCourse(manager, term.setId, courseId)", 'await Promise.resolve()', 'audiences/'), // prettier-ignore
  server('audiences/joinTerms.ts', 'include: terms.include.map(renamed)', 'include: terms.include', 'audiences/'), // prettier-ignore
  server('release/release.service.ts', 'await lockForAudiences(manager, activity.courseId, to);', '', 'audiences/'), // prettier-ignore
  server('release/reach.service.ts', '!reachesGroup(audience, group) || isInAudience(student, audience)', 'true', 'audiences/'), // prettier-ignore
  web('audiences/termChoices.ts', 'id === own ? []', 'false ? []', 'web/src/audiences'),
  web('audiences/AudienceEditor.tsx', 'current.success ? current.data.version : basedOn', 'basedOn', 'web/src/audiences'), // prettier-ignore
  web('page/useKeptFocus.ts', "!last.isConnected || last.matches(':disabled')", '!last.isConnected', 'page/useKeptFocus'), // prettier-ignore
  web('page/useKeptFocus.ts', 'last = event.target;', 'last ??= event.target;', 'page/useKeptFocus'),
  web('placing/dealOut.ts', 'if (!leaves.has(groupId))', 'if (true)', 'placing/wholeSet'),
];

const ofEachGroup = [
  server('ownFiles/ownFiles.service.ts', 'if (known !== newest)', 'if (false)', 'ownFiles/'),
  server('ownFiles/ownFiles.service.ts', 'if (!isOwn) throw problems.notFound();', '', 'ownFiles/'),
  server('ownFiles/ownFiles.service.ts', "if (mayAct(ownFileRules, 'put', access.decision)) return access;", 'return access;', 'ownFiles/'), // prettier-ignore
  server('release/copiesChanged.ts', 'changed.length === copies.length ? null : ', 'true ? null : ', 'calendar/ownTimes'), // prettier-ignore
  server('release/kinds.ts', '?.(settings, groupId) ?? settings', '?.(settings, null) ?? settings', 'calendar/ownTimes'), // prettier-ignore
  server('release/content.ts', 'isElsewhere ? forNoGroup(content, kinds) : content.settings', 'content.settings', 'calendar/ownTimes'), // prettier-ignore
  core('calendar/kind.ts', 'settings.isCancelled || own.isCancelled', 'own.isCancelled', 'core/src/calendar'),
  web('form/useRecorder.ts', '      letGo(stream);\n      if (isGone.current) return;', '      if (isGone.current) return;', 'form/recorder'), // prettier-ignore
  web('form/uploads.tsx', 'void latest.current(file);', '', 'ownFiles/'),
];
const sightlines = [
  server('sightlines/sightlines.service.ts', "courseId, 'release');", "courseId, 'read-course');", 'server/src/sightlines'), // prettier-ignore
  core('sightlines/facts.ts', 'hasLeft: leftAt !== null && leftAt <= at', 'hasLeft: leftAt !== null', 'core/src/sightlines'), // prettier-ignore
  core('sightlines/why.ts', 'copies.of(groupId) ?? copies.of(null)', 'copies.all[0]', 'core/src/sightlines'),
  core('sightlines/sight.ts', 'if (looked) yield looked;', '', 'core/src/sightlines'),
  web('sightlines/lines.ts', '(!wanted.isOnlyDifferent || differs(own))', 'true', 'sightlines/sightlines'),
  web('sightlines/sightWork.ts', 'known.get(name) ?? cell', 'cell', 'sightlines/sightlines'),
  web('sightlines/otherwise.ts', 'target === now ? null : target', 'target', 'sightlines/sightlines'),
  core('sightlines/ticks.ts', 'for (const { from } of facts.seats) moments.add(from);', '', 'core/src/sightlines'), // prettier-ignore
];

const foreseen = [
  core('foreseen/differences.ts', "release.mode === 'read-along' ? copies : ", '', 'core/src/foreseen'),
  core('foreseen/foldAlike.ts', 'of.size === 1 && !of.has(null)', 'of.size === 1', 'core/src/foreseen'),
  core('foreseen/foldAlike.ts', '.length > most', '.length > 1', 'core/src/foreseen'),
  server('platform/unitOfWork.ts', 'if (runner.isTransactionActive) await runner.rollbackTransaction();', 'if (runner.isTransactionActive) await runner.commitTransaction();', 'server/src/foreseen'), // prettier-ignore
  server('platform/unitOfWork.ts', `await runner.query('ROLLBACK TO SAVEPOINT "as_it_is"');`, '', 'server/src/foreseen'), // prettier-ignore
  server('platform/unitOfWork.ts', 'tries === 1 || !gaveWayToAnother(error)', 'true', 'server/src/foreseen'),
  server('foreseen/foreseen.service.ts', 'await this.refuseElsewhere(manager, person, courseId, planned);', '', 'server/src/foreseen'), // prettier-ignore
  server('foreseen/foreseen.service.ts', "courseId, 'release');", "courseId, 'read-course');", 'server/src/foreseen'), // prettier-ignore
  web('foreseen/WhatChanges.tsx', 'count === 1)', 'true)', 'foreseen/foreseen'),
];

const practice = [
  server('course/enrolments.ts', ", role: Not('practice')", '', 'server/src/practice'),
  server('identity/sittingIn.ts', "(isPractice && asked.startsWith('/api/copies/'))", 'isPractice', 'server/src/practice'), // prettier-ignore
  server('release/gate.ts', ' AND copy."practiceRound" IS NOT DISTINCT FROM :round', '', 'server/src/practice'), // prettier-ignore
  server('release/gate.ts', 'if (copy.practiceRound === round) entered.push(admitted);', 'entered.push(admitted);', 'server/src/practice'), // prettier-ignore
  server('release/copiesInView.ts', '    practiceRound: IsNull(),\n', '', 'server/src/practice'),
  server('release/releasesOfCourse.ts', ' AND c."practiceRound" IS NULL', '', 'server/src/practice'),
  server('practice/practice.service.ts', '(await hasHappened(manager, since))', 'false', 'server/src/practice'), // prettier-ignore
  server('platform/events.ts', '"subjectId" = ANY($1)) AS', '"subjectId" = ANY($1) AND "type" = \'handed-in\') AS', 'server/src/practice'), // prettier-ignore
  server('rooms/rooms.service.ts', 'members.some(({ isYou }) => isYou) ? namingVersion : null', "viewer.role === 'student' ? namingVersion : null", 'server/src/practice'), // prettier-ignore
];

const madeCourses = [
  server('release/gate.ts', `(c."groupId" IS NULL OR c."groupId" = ANY($4)`, '(c."groupId" = ANY($4)', 'app/madeCourses'), // prettier-ignore
  server('release/copiesInView.ts', 'const idsOf = ({ copies }: Change) => copies?.copyIds ?? null;', 'const idsOf = (_change: Change): readonly CopyId[] | null => null;', 'app/madeCourses'), // prettier-ignore
];

const checks = [
  server('checks/checks.service.ts', "await this.viewers.staff(person, courseId, 'release');\n    const now", "await this.viewers.staff(person, courseId, 'read-course');\n    const now", 'server/src/checks'), // prettier-ignore
  server('checks/checks.service.ts', 'if (!check)', 'if (false)', 'server/src/checks'), // prettier-ignore
  server(
    'checks/checks.service.ts',
    'update(JSON.stringify(check, inOrder))',
    'update(check.code)',
    'server/src/checks',
  ),
  core('checks/checkedUntil.ts', '[at, at + 1]', '[at]', 'core/src/checks'),
  server('checks/checks.service.ts', "'nothing' : 'all'", "'nothing' : 'nothing'", 'server/src/checks'),
  server('checks/checks.service.ts', 'until: checkedUntil({ sight, now })', 'until: null', 'server/src/checks'), // prettier-ignore
  core('checks/audiences.ts', 'groups.length - out.length > out.length', 'true', 'core/src/checks'),
  core('checks/dates.ts', 'if (due && due >= now)', 'if (due)', 'core/src/checks'),
  core('checks/dates.ts', 'later.due - earlier.due >= hourMs', 'later.due - earlier.due > hourMs', 'core/src/checks'), // prettier-ignore
  core('checks/written.ts', "if (node.type === 'codeBlock' || node.marks?.some(({ type }) => type === 'code')) return;", '', 'core/src/checks'), // prettier-ignore
  web('release/CheckFix.tsx', 'include: [...release.to.include, ...groupIds', 'include: [...groupIds', 'release/checks'), // prettier-ignore
];

export const mutations = [
  ...visibility,
  ...truthOfMarks,
  ...togetherAtOnce,
  ...doors,
  ...pages,
  ...waysIn,
  ...names,
  ...others,
  ...underLoad,
  ...keptInStep,
  ...firstHour,
  ...tablesAndChoices,
  ...audiences,
  ...ofEachGroup,
  ...sightlines,
  ...foreseen,
  ...practice,
  ...madeCourses,
  ...checks,
];
