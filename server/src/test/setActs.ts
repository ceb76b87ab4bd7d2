import { settingsOf } from '@jigsaw/contract/sets';
import type { BoardGroup } from '@jigsaw/contract/sets';
import type { BoardView } from '@jigsaw/contract/placing';
import { sure } from '@jigsaw/core/lists';
import type { CourseForTests } from './aCourse.js';

/** What is sent when a group is changed. */
export const rowOf = ({ id, name, capacity, isLocked, version }: BoardGroup) => ({
  id,
  name,
  capacity,
  isLocked,
  version,
});

/** What an instructor does with the sets of whichever course is given at the moment; the course's first set, unless another is named. */
export const setActs = (given: () => CourseForTests) => {
  const idOf = (name: string) => sure(given().students.get(name)).enrolmentId;
  const board = async (setId: string = given().set.id) =>
    (await given().instructor.get(`/api/sets/${setId}/board`).expect(200)).body as BoardView;
  return {
    idOf,
    board,
    place: (moves: unknown[], setId: string = given().set.id, why = '') =>
      given().instructor.post(`/api/sets/${setId}/place`).send({ moves, why }),
    /** "Crock", with "!" for anyone who leads it */
    seatsOf: async (name: string, setId: string = given().set.id) => {
      const { groups, students } = await board(setId);
      const { seats } = sure(students.find((student) => student.enrolmentId === idOf(name)));
      return seats
        .map(
          (seat) =>
            `${sure(groups.find((group) => group.id === seat.groupId)).name}${seat.isLeader ? '!' : ''}`,
        )
        .sort();
    },
    change: async (more: object, setId: string = given().set.id) => {
      const { set } = await board(setId);
      return given()
        .instructor.patch(`/api/sets/${setId}`)
        .send({ ...settingsOf(set), ...more });
    },
  };
};
