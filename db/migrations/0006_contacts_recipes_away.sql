CREATE TABLE "contact" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "contact_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"kind" text NOT NULL,
	"name" text NOT NULL,
	"reach" text DEFAULT '' NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"retired" boolean DEFAULT false NOT NULL
);
--> statement-breakpoint
CREATE TABLE "contact_name" (
	"kind" text NOT NULL,
	"called" text NOT NULL,
	"contact_id" integer NOT NULL,
	CONSTRAINT "contact_name_kind_called_pk" PRIMARY KEY("kind","called")
);
--> statement-breakpoint
ALTER TABLE "recipe" ADD COLUMN "retired" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "contact_name" ADD CONSTRAINT "contact_name_contact_id_contact_id_fk" FOREIGN KEY ("contact_id") REFERENCES "public"."contact"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "contact_name_contact" ON "contact_name" USING btree ("contact_id");--> statement-breakpoint
-- Whoever the books name for the first time becomes a contact; one that was called so before is the same.
CREATE FUNCTION meet_contact() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE
  named text := btrim(to_jsonb(NEW) ->> TG_ARGV[1]);
  fresh integer;
BEGIN
  IF named = '' OR EXISTS (SELECT 1 FROM contact_name n WHERE n.kind = TG_ARGV[0] AND n.called = lower(named)) THEN
    RETURN NULL;
  END IF;
  INSERT INTO contact (kind, name) VALUES (TG_ARGV[0], named) RETURNING id INTO fresh;
  INSERT INTO contact_name (kind, called, contact_id) VALUES (TG_ARGV[0], lower(named), fresh) ON CONFLICT DO NOTHING;
  -- Another window has just met them.
  IF NOT FOUND THEN
    DELETE FROM contact WHERE id = fresh;
  END IF;
  RETURN NULL;
END $$;--> statement-breakpoint
CREATE TRIGGER purchase_meets AFTER INSERT OR UPDATE OF supplier ON purchase FOR EACH ROW EXECUTE FUNCTION meet_contact('supplier', 'supplier');--> statement-breakpoint
CREATE TRIGGER offer_meets AFTER INSERT OR UPDATE OF supplier ON offer FOR EACH ROW EXECUTE FUNCTION meet_contact('supplier', 'supplier');--> statement-breakpoint
CREATE TRIGGER gift_order_meets AFTER INSERT OR UPDATE OF customer ON gift_order FOR EACH ROW EXECUTE FUNCTION meet_contact('customer', 'customer');--> statement-breakpoint
CREATE TRIGGER market_day_meets AFTER INSERT OR UPDATE OF name ON market_day FOR EACH ROW EXECUTE FUNCTION meet_contact('market', 'name');--> statement-breakpoint
-- Everybody the books name already, as they were last written.
WITH named AS (
  SELECT 'supplier' AS kind, btrim(supplier) AS name, day FROM purchase
  UNION ALL SELECT 'supplier', btrim(supplier), seen FROM offer
  UNION ALL SELECT 'customer', btrim(customer), due FROM gift_order
  UNION ALL SELECT 'market', btrim(name), day FROM market_day
), known AS (
  SELECT kind, (array_agg(name ORDER BY day DESC, name))[1] AS name FROM named WHERE name <> '' GROUP BY kind, lower(name)
), met AS (
  INSERT INTO contact (kind, name) SELECT kind, name FROM known ORDER BY kind, name RETURNING id, kind, name
)
INSERT INTO contact_name (kind, called, contact_id) SELECT kind, lower(name), id FROM met;--> statement-breakpoint
CREATE INDEX "purchase_supplier" ON "purchase" USING btree (lower(btrim("supplier")));--> statement-breakpoint
CREATE INDEX "offer_supplier" ON "offer" USING btree (lower(btrim("supplier")));--> statement-breakpoint
CREATE INDEX "gift_order_customer" ON "gift_order" USING btree (lower(btrim("customer")));--> statement-breakpoint
CREATE INDEX "market_day_name" ON "market_day" USING btree (lower(btrim("name")));
