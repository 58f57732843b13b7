/** What the demo's maker has written down of those the books name. */
import { CONTACT_KINDS } from "#core/contact";
import { contactsOf, saveContact } from "#db/contacts/contacts";
import type { World } from "./world.ts";

const NOTES: Readonly<Record<string, { reach: string; note: string }>> = {
  "Undermere Botanicals": { reach: "Order by Tuesday noon", note: "Sends a certificate for each lot of essential oil when asked." },
  "Skerrow Oil Press": { reach: "Call first; closed in July", note: "Presses to order: rosehip only from October." },
  "Vellick Tin and Glass": { reach: "Web shop, 100 pieces and more", note: "Lids come in a carton of their own, sometimes a day later." },
  "Ostrand Paper Room": { reach: "Collect on Fridays", note: "" },
  "Quarrow village choir": { reach: "Through the choir's treasurer", note: "Two singers can't have nut oils." },
  "Osmer Barn, wedding table": { reach: "The barn's office", note: "Boxes without ribbon." },
  "Marrowfield allotments": { reach: "Gate on Mill Lane, Saturdays", note: "No scent: it is for gardeners' hands." },
  "Aldermoss Saturday market": { reach: "Town hall, stall list closes Wednesday", note: "Stall stands by 7:30; own table." },
  "Withy Green summer fair": { reach: "Fair committee", note: "No shade: leave whipped butter at home." },
  "Lantern Night, Orrin Quay": { reach: "Harbour office", note: "Bring lights; cash only after nine." },
};

export async function noteContacts({ db, today }: World): Promise<void> {
  for (const kind of CONTACT_KINDS)
    for (const { id, name } of await contactsOf(db, kind)) {
      const noted = NOTES[name];
      if (noted) await saveContact(db, { id, kind, name, ...noted }, { day: today });
    }
}
