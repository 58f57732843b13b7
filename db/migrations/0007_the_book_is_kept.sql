-- What is in the book stays as it was written: an act is finished once, by the act itself, and neither it nor the ledger can be emptied.
CREATE FUNCTION act_is_kept() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF TG_OP = 'UPDATE' AND OLD.summary = '' THEN
    RETURN NEW;
  END IF;
  RAISE EXCEPTION 'the book is append-only: take the act back with a new one';
END $$;
--> statement-breakpoint
CREATE TRIGGER act_append_only BEFORE UPDATE OR DELETE ON act
  FOR EACH ROW EXECUTE FUNCTION act_is_kept();
--> statement-breakpoint
CREATE TRIGGER act_never_emptied BEFORE TRUNCATE ON act
  FOR EACH STATEMENT EXECUTE FUNCTION act_is_kept();
--> statement-breakpoint
CREATE TRIGGER movement_never_emptied BEFORE TRUNCATE ON movement
  FOR EACH STATEMENT EXECUTE FUNCTION movement_is_kept();
