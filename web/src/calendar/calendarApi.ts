import { CalendarAddresses, NewCalendarAddress } from '@jigsaw/contract/calendar';
import { api } from '../api/index.js';

export const {
  useListCalendarAddressesQuery,
  useAddCalendarAddressMutation,
  useRemoveCalendarAddressMutation,
} = api.injectEndpoints({
  endpoints: (build) => ({
    listCalendarAddresses: build.query<CalendarAddresses, void>({
      query: () => 'calendar-addresses',
      responseSchema: CalendarAddresses,
      providesTags: ['CalendarAddress'],
    }),
    addCalendarAddress: build.mutation<NewCalendarAddress, string>({
      query: (label) => ({ url: 'calendar-addresses', method: 'POST', body: { label } }),
      responseSchema: NewCalendarAddress,
      invalidatesTags: ['CalendarAddress'],
    }),
    removeCalendarAddress: build.mutation<CalendarAddresses, string>({
      query: (id) => ({ url: `calendar-addresses/${id}`, method: 'DELETE' }),
      responseSchema: CalendarAddresses,
      invalidatesTags: ['CalendarAddress'],
    }),
  }),
});
