import type { QueryClient, QueryFilters } from "@tanstack/react-query";

/**
 * Asks anew what has changed on the server. An answer that is on its way may be from before the change: it is let go,
 * where the first answer to a question would otherwise stand for the new one too.
 */
export async function askAnew(client: QueryClient, about: QueryFilters): Promise<void> {
  await client.cancelQueries(about);
  await client.invalidateQueries(about);
}
