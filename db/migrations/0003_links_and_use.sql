-- What is used of each material in a month, kept by the ledger: taking back counts against the month it is done in.
CREATE FUNCTION movement_counts_use() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO material_use AS u (material_id, month, used)
    SELECT l.material_id, date_trunc('month', a.day)::date, -sum(m.qty)
    FROM moved m JOIN lot l ON l.id = m.lot_id JOIN act a ON a.id = m.act_id
    WHERE l.material_id IS NOT NULL AND m.qty <> 0
      AND (m.batch_id IS NOT NULL OR m.gift_order_id IS NOT NULL OR m.jar_id IS NOT NULL)
      AND m.reason NOT IN ('strained')
      AND NOT (m.reason = 'undone' AND m.jar_id IS NOT NULL AND m.qty < 0)
    GROUP BY 1, 2 ORDER BY 1, 2
  ON CONFLICT (material_id, month) DO UPDATE SET used = u.used + excluded.used;
  RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER movement_into_use AFTER INSERT ON movement
  REFERENCING NEW TABLE AS moved FOR EACH STATEMENT EXECUTE FUNCTION movement_counts_use();
--> statement-breakpoint
INSERT INTO material_use (material_id, month, used)
  SELECT l.material_id, date_trunc('month', a.day)::date, -sum(m.qty)
  FROM movement m JOIN lot l ON l.id = m.lot_id JOIN act a ON a.id = m.act_id
  WHERE l.material_id IS NOT NULL AND (m.batch_id IS NOT NULL OR m.gift_order_id IS NOT NULL)
  GROUP BY 1, 2;
--> statement-breakpoint
-- Some of lot from_lot is in lot to_lot: by a batch, a jar or a blend, as long as what made it stands.
CREATE VIEW lot_link AS
  SELECT ing.lot_id AS from_lot, made.lot_id AS to_lot
    FROM batch b
    JOIN movement made ON made.act_id = b.poured_act_id AND made.reason = 'filled'
    JOIN movement ing ON ing.act_id = b.poured_act_id AND ing.reason = 'used'
  UNION ALL
  SELECT p.lot_id, made.lot_id
    FROM jar j
    JOIN jar_part p ON p.jar_id = j.id
    JOIN movement made ON made.act_id = j.strained_act_id AND made.reason = 'strained'
  UNION ALL
  SELECT ing.lot_id, made.lot_id
    FROM movement made
    JOIN movement ing ON ing.act_id = made.act_id AND ing.reason = 'blended' AND ing.qty < 0
    WHERE made.reason = 'blended' AND made.qty > 0 AND NOT EXISTS (SELECT 1 FROM act u WHERE u.undoes = made.act_id);
