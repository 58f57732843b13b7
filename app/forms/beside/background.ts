/** Schema of what every background request has besides its content. */
import { boolean, string } from "yup";

export const background = {
  /** Made by the page for this one request, so that a repetition counts once. */
  key: string().uuid().optional(),
  /** Sent by a later page than the one it was typed on. */
  late: boolean().default(false),
};
