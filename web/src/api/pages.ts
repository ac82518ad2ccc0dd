import { useInfiniteQuery, type QueryKey } from "@tanstack/react-query";

export interface Paged<P extends { next_cursor: string }, R> {
  key: QueryKey;
  /** Reads the page that a cursor begins; without one the first. */
  read: (cursor?: string) => Promise<P>;
  rows: (page: P) => R[];
}

/** A list in pages: its rows as far as they have been read, and the first page with what stands beside them. */
export function usePages<P extends { next_cursor: string }, R>({ key, read, rows }: Paged<P, R>) {
  return useInfiniteQuery({
    queryKey: key,
    queryFn: ({ pageParam }) => read(pageParam || undefined),
    initialPageParam: "",
    getNextPageParam: (last) => last.next_cursor || undefined,
    select: (d) => ({ rows: d.pages.flatMap(rows), first: d.pages[0]! }),
  });
}

/** What a list needs to read on. */
export interface ReadsOn {
  hasNextPage: boolean;
  isFetchingNextPage: boolean;
  isFetchNextPageError: boolean;
  fetchNextPage: () => unknown;
}
