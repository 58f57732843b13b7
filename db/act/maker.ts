/** Who does the work, by the workshop's own word: written with whatever is done. */
import { sql } from "drizzle-orm";

export const actorName = sql`coalesce((select data ->> 'maker' from settings where id = 1), 'Maker')`;
