import type {
  BaseQueryFn,
  FetchArgs,
  FetchBaseQueryError,
  FetchBaseQueryMeta,
} from '@reduxjs/toolkit/query/react';

export type Asked = string | FetchArgs;

/** How the server is asked, whatever for. */
export type Query = BaseQueryFn<
  Asked,
  unknown,
  FetchBaseQueryError,
  { tellsShare?: boolean; isReaders?: boolean },
  FetchBaseQueryMeta
>;
