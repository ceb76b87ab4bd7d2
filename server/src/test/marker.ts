import type { ActType } from '@jigsaw/core/audit';
import type { CourseId } from '@jigsaw/core/ids';
import { UnitOfWork } from '../platform/unitOfWork.js';
import type { TestServer } from './testServer.js';

/** No act of the product’s own. */
export const marker: string = 'told.to.all';

/** Everyone in the course hears of it: whatever came before it and is not heard by then does not come. */
export const tellAll = (server: TestServer, courseId: CourseId): Promise<void> =>
  server.app
    .get(UnitOfWork, { strict: false })
    .run(({ record }) => record({ type: marker as ActType, courseId, isForAll: true }));
