-- The ledger is append-only, and a lot's on hand and value are its running sums and nothing else.
CREATE FUNCTION movement_is_kept() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  RAISE EXCEPTION 'the ledger is append-only: correct it with a new movement';
END $$;
--> statement-breakpoint
CREATE TRIGGER movement_append_only BEFORE UPDATE OR DELETE ON movement
  FOR EACH ROW EXECUTE FUNCTION movement_is_kept();
--> statement-breakpoint
CREATE FUNCTION movement_moves_lot() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  UPDATE lot SET on_hand = on_hand + NEW.qty, value = value + NEW.value WHERE id = NEW.lot_id;
  RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER movement_into_lot AFTER INSERT ON movement
  FOR EACH ROW EXECUTE FUNCTION movement_moves_lot();
--> statement-breakpoint
CREATE FUNCTION lot_only_through_ledger() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF TG_OP = 'INSERT' AND (NEW.on_hand <> 0 OR NEW.value <> 0) THEN
    RAISE EXCEPTION 'a lot starts empty: stock comes in through the ledger';
  END IF;
  IF TG_OP = 'UPDATE' AND (NEW.on_hand <> OLD.on_hand OR NEW.value <> OLD.value) AND pg_trigger_depth() < 2 THEN
    RAISE EXCEPTION 'stock moves only through the ledger';
  END IF;
  RETURN NEW;
END $$;
--> statement-breakpoint
CREATE TRIGGER lot_ledger_only BEFORE INSERT OR UPDATE ON lot
  FOR EACH ROW EXECUTE FUNCTION lot_only_through_ledger();
