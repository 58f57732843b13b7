-- What a count found there stays there, whatever turns out otherwise of what came before it. Counts of before go on as they did.
ALTER TABLE "zelbin"."movement" ADD COLUMN "counted_to" bigint;--> statement-breakpoint
-- What each movement adds to the use of its material: in the month of what was used, also where it is taken back or put right in another.
-- Acts taken back before that was noted with each movement name only the act.
CREATE VIEW movement_use AS
  SELECT m.id, l.material_id, date_trunc('month', a.day)::date AS month, -m.qty AS used
    FROM movement m
    JOIN movement b ON b.id = coalesce(m.restates, m.id)
    JOIN lot l ON l.id = m.lot_id
    JOIN act own ON own.id = b.act_id
    JOIN act a ON a.id = coalesce(own.undoes, own.id)
    WHERE l.material_id IS NOT NULL AND m.qty <> 0
      AND (b.batch_id IS NOT NULL OR b.gift_order_id IS NOT NULL OR b.jar_id IS NOT NULL)
      AND CASE WHEN own.undoes IS NULL THEN b.qty < 0 ELSE b.jar_id IS NULL OR b.qty > 0 END;
--> statement-breakpoint
CREATE OR REPLACE FUNCTION movement_counts_use() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO material_use AS u (material_id, month, used)
    SELECT v.material_id, v.month, sum(v.used)
    FROM moved m JOIN movement_use v ON v.id = m.id
    WHERE m.batch_id IS NOT NULL OR m.gift_order_id IS NOT NULL OR m.jar_id IS NOT NULL
    GROUP BY 1, 2 ORDER BY 1, 2
  ON CONFLICT (material_id, month) DO UPDATE SET used = u.used + excluded.used;
  RETURN NULL;
END $$;
--> statement-breakpoint
DELETE FROM material_use;
--> statement-breakpoint
INSERT INTO material_use (material_id, month, used) SELECT material_id, month, sum(used) FROM movement_use GROUP BY 1, 2;
--> statement-breakpoint
-- Packs that arrived name the line their rest waits on; of those of before nobody knows which of several alike it was.
ALTER TABLE act DISABLE TRIGGER act_append_only;
--> statement-breakpoint
UPDATE act SET leaves = '{"v": 1, "left": {"restId": null}}' WHERE kind = 'arrive';
--> statement-breakpoint
ALTER TABLE act ENABLE TRIGGER act_append_only;
