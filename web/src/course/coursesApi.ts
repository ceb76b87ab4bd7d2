import type { CreateCourse } from '@jigsaw/contract/course';
import { CourseList, CourseView } from '@jigsaw/contract/course';
import { api } from '../api/index.js';

export const { useListCoursesQuery, useCreateCourseMutation } = api.injectEndpoints({
  endpoints: (build) => ({
    listCourses: build.query<CourseList, void>({
      query: () => 'courses',
      responseSchema: CourseList,
      providesTags: ['Course'],
    }),
    createCourse: build.mutation<CourseView, CreateCourse>({
      query: (body) => ({ url: 'courses', method: 'POST', body }),
      responseSchema: CourseView,
      invalidatesTags: ['Course'],
    }),
  }),
});
