/** Every kind of act as one that takes part in contests; the compiler asks for whichever is missing. */
import type { ActKind } from "#core/act/kinds";
import { JARS } from "./contestants/jars.ts";
import { MAKING } from "./contestants/making.ts";
import { RECALLING } from "./contestants/recalling.ts";
import { SELLING } from "./contestants/selling.ts";
import { SHELF } from "./contestants/shelf.ts";
import { STOCK } from "./contestants/stock.ts";
import type { Contestant } from "./world.ts";

export const CONTESTANTS: Record<ActKind, Contestant> = { ...SHELF, ...STOCK, ...JARS, ...MAKING, ...SELLING, ...RECALLING };
