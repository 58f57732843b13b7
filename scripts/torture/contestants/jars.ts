/** Jars, in contests. */
import { mg } from "#core/measure/exact";
import { keepPhoto } from "#db/attachments/attachments";
import { heat, tend, topUp } from "#db/jars/fill";
import { blend, spoilJar, strainJar } from "#db/jars/strain";
import { PICTURE } from "#test/db/picture";
import { atOnce, idIn, jarIn, now, type Contestant } from "../world.ts";

export const JARS = {
  fillJar: atOnce(jarIn),
  topUp: atOnce((db, w) => topUp(db, { jarId: w.ids.jar, lotId: w.lots.oil[0], qty: mg(1000) }, now())),
  tend: atOnce((db, w) => tend(db, { jarIds: [w.ids.otherJar, w.ids.jar], kind: "shaken" }, now())),
  heat: atOnce((db, w) => heat(db, { jarId: w.ids.jar, minutes: 60 }, now())),
  keepPhoto: atOnce((db, w) => keepPhoto(db, { jarId: w.ids.jar, file: { name: "photo.png", bytes: PICTURE } }, now())),
  strain: {
    ready: async (db, w) => {
      const jarId = idIn(await jarIn(db, w));
      const back = { back: mg(80_000), secondBack: null, sediment: mg(0), herbOut: null, pressed: true, bottles: [mg(80_000)] };
      return (at) => strainJar(at, { jarId, ...back }, now());
    },
  },
  spoil: {
    ready: async (db, w) => {
      const jarId = idIn(await jarIn(db, w));
      return (at) => spoilJar(at, { jarId, why: "mould" }, now());
    },
  },
  blend: atOnce((db, w) =>
    blend(db, { name: "Blend", takes: [...w.lots.oil].reverse().map((lotId) => ({ lotId, qty: mg(1000) })), note: "" }, now()),
  ),
} as const satisfies Record<string, Contestant>;
