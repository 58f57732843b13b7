-- What a lot is on hold for: each reason a row of its own, lifted by what put it there and nothing else.
CREATE TABLE "zelbin"."lot_hold" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "zelbin"."lot_hold_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"lot_id" integer NOT NULL,
	"by" text NOT NULL,
	"source" integer DEFAULT 0 NOT NULL,
	"reason" text NOT NULL,
	CONSTRAINT "lot_hold_once" UNIQUE("lot_id","by","source")
);
--> statement-breakpoint
ALTER TABLE "zelbin"."movement" ADD COLUMN "back_from_order_id" integer;--> statement-breakpoint
ALTER TABLE "zelbin"."movement" ADD COLUMN "back_from_day_id" integer;--> statement-breakpoint
ALTER TABLE "zelbin"."lot_hold" ADD CONSTRAINT "lot_hold_lot_id_lot_id_fk" FOREIGN KEY ("lot_id") REFERENCES "zelbin"."lot"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "lot_hold_source" ON "zelbin"."lot_hold" USING btree ("by","source");--> statement-breakpoint
ALTER TABLE "zelbin"."movement" ADD CONSTRAINT "movement_back_from_order_id_gift_order_id_fk" FOREIGN KEY ("back_from_order_id") REFERENCES "zelbin"."gift_order"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "zelbin"."movement" ADD CONSTRAINT "movement_back_from_day_id_market_day_id_fk" FOREIGN KEY ("back_from_day_id") REFERENCES "zelbin"."market_day"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
-- What recalls hold: those that go on hold whatever they reached, those that were closed what still says so.
INSERT INTO lot_hold (lot_id, by, source, reason)
  SELECT rl.lot_id, 'recall', r.id, 'Recall: ' || r.reason
  FROM recall_lot rl JOIN recall r ON r.id = rl.recall_id JOIN lot l ON l.id = rl.lot_id LEFT JOIN act c ON c.id = r.closed_act_id
  WHERE NOT r.rehearsal AND r.begun_act_id IS NOT NULL AND l.hold_reason IS NOT NULL
    AND (r.closed_act_id IS NULL OR rl.held AND l.hold_reason = 'Recall: ' || r.reason)
    AND coalesce(jsonb_array_length(c.leaves -> 'left' -> 'freed'), 0) = 0
  ORDER BY r.id, rl.lot_id;
--> statement-breakpoint
INSERT INTO lot_hold (lot_id, by, source, reason)
  SELECT l.id, 'check', s.batch_id, l.hold_reason FROM lot l JOIN batch_size s ON s.lot_id = l.id
  WHERE l.hold_reason = 'It waits for its check' OR starts_with(l.hold_reason, 'Check: ') ORDER BY l.id;
--> statement-breakpoint
INSERT INTO lot_hold (lot_id, by, source, reason)
  SELECT DISTINCT ON (l.id) l.id, 'made', m.jar_id, l.hold_reason FROM lot l JOIN movement m ON m.lot_id = l.id AND m.reason = 'strained' AND m.jar_id IS NOT NULL
  WHERE l.hold_reason LIKE '% is in it, on hold: %' ORDER BY l.id;
--> statement-breakpoint
INSERT INTO lot_hold (lot_id, by, source, reason)
  SELECT l.id, 'hand', 0, l.hold_reason FROM lot l
  WHERE l.hold_reason IS NOT NULL AND NOT EXISTS (SELECT 1 FROM lot_hold h WHERE h.lot_id = l.id AND h.reason = l.hold_reason) ORDER BY l.id;
--> statement-breakpoint
UPDATE lot SET hold_reason = (SELECT string_agg(h.reason, '; ' ORDER BY h.id) FROM lot_hold h WHERE h.lot_id = lot.id) WHERE hold_reason IS NOT NULL;
--> statement-breakpoint
CREATE FUNCTION hold_says_so() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  UPDATE lot SET hold_reason = (SELECT string_agg(h.reason, '; ' ORDER BY h.id) FROM lot_hold h WHERE h.lot_id = lot.id)
    WHERE id = coalesce(NEW.lot_id, OLD.lot_id);
  RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER lot_hold_in_words AFTER INSERT OR UPDATE OR DELETE ON lot_hold
  FOR EACH ROW EXECUTE FUNCTION hold_says_so();
