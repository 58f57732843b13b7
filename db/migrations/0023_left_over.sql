-- What was melted down is in the base it became, as the oils of a blend are in the blend; what was left in the jug and is kept as a base has
-- in it what went into the whole pot.
CREATE OR REPLACE VIEW lot_link AS
  SELECT ing.lot_id AS from_lot, made.lot_id AS to_lot
    FROM batch b
    JOIN movement made ON made.act_id = b.poured_act_id AND made.reason = 'filled'
    JOIN movement ing ON ing.act_id = b.poured_act_id AND ing.reason = 'used' AND (ing.into_lot_id IS NULL OR ing.into_lot_id = made.lot_id)
  UNION ALL
  SELECT p.lot_id, made.lot_id
    FROM jar j
    JOIN jar_part p ON p.jar_id = j.id
    JOIN movement made ON made.act_id = j.strained_act_id AND made.reason = 'strained'
  UNION ALL
  SELECT ing.lot_id, made.lot_id
    FROM movement made
    JOIN movement ing ON ing.act_id = made.act_id AND ing.reason = made.reason AND ing.qty < 0
    JOIN standing_act sa ON sa.id = made.act_id
    WHERE made.reason IN ('blended', 'remelted') AND made.qty > 0
  UNION ALL
  SELECT ing.lot_id, made.lot_id
    FROM batch b
    JOIN movement made ON made.act_id = b.poured_act_id AND made.reason = 'leftOver'
    JOIN movement ing ON ing.act_id = b.poured_act_id AND ing.reason = 'used' AND ing.into_lot_id IS NULL;
